# Lists what users of a distribution of Perl can name, as the language itself has it when it loads a module: the
# subs of each package, those of bases in the same distribution, and variables that are exported. Folders
# with modules below them come on standard input; one JSON object is printed for each.
use strict;
use warnings;
use B ();
use File::Find ();
use JSON::PP;
use mro ();

my %own = map { $_ => 1 } qw(BEGIN END INIT CHECK UNITCHECK AUTOLOAD DESTROY CLONE CLONE_SKIP BUILD BUILDARGS DEMOLISH ADJUST FOREIGNBUILDARGS import unimport can isa DOES VERSION);
my $json = JSON::PP->new->utf8->canonical;
while (my $folder = <STDIN>) {
    chomp $folder;
    my (%file, @entries);
    File::Find::find({ no_chdir => 1, wanted => sub { /\.pm$/ and $file{ module_of($folder, $_) } = $_ } }, $folder);
    for my $module (grep { !/(?:^|::)_/ && !hidden($_, $file{$_}) } sort keys %file) { # else it is the distribution's own
        my $found = apart(sub { names_of($module, $file{$module}, \%file, $folder) });
        push @entries, $found if $found;
    }
    (my $name = $folder) =~ s{/usr/.*}{};
    $name =~ s{.*/}{};
    print $json->encode({ folder => $folder, name => $name, entries => \@entries }), "\n";
}

# hidden reports whether a package hides from the index of all packages, as a remark before its name does.
sub hidden {
    my ($module, $file) = @_;
    my $text = text_of($file);
    return $text =~ /^\s*package[ \t]*#[^\n]*\n\s*\Q$module\E\s*;/m && $text !~ /^=head1[ \t]+NAME/m;
}

# module_of is what a file is called as a module, from where the language looks for modules.
sub module_of {
    my ($folder, $file) = @_;
    my $path = substr $file, 1 + length $folder;
    $path =~ s{^(?:.*/)?(?:perl5|lib)/(?:[\d.]+/)?}{} or $path =~ s{^[\d.]+/}{};
    $path =~ s{\.pm$}{};
    $path =~ s{/}{::}g;
    return $path;
}

# apart asks in a process of its own: modules change the program that loads them.
sub apart {
    my ($ask) = @_;
    pipe my $in, my $out or die "pipe: $!";
    my $pid = fork // die "fork: $!";
    if (!$pid) {
        open STDERR, '>', '/dev/null';
        open STDOUT, '>', '/dev/null';
        my $found = eval { local $SIG{ALRM} = sub { die }; alarm 20; $ask->() };
        print {$out} $json->encode($found) if $found;
        close $out;
        require POSIX;
        POSIX::_exit(0);
    }
    close $out;
    my $text = do { local $/; <$in> };
    waitpid $pid, 0;
    return $text ? $json->decode($text) : undef;
}

sub names_of {
    my ($module, $file, $files, $folder) = @_;
    my %root;
    for my $path (values %$files) {
        (my $root = $path) =~ s{/[^/]*$}{};
        (my $below = module_of($folder, $path)) =~ s{(?:::)?[^:]+$}{};
        $below =~ s{::}{/}g;
        $root =~ s{/\Q$below\E$}{} if $below;
        $root{$root} = 1;
    }
    unshift @INC, sort keys %root;
    (my $path = "$module.pm") =~ s{::}{/}g;
    require $path;
    my $code = text_of($file);
    my $told = $code;
    (my $beside = $file) =~ s{\.pm$}{.pod};
    $told .= text_of($beside) if -e $beside;
    $told = about($module, $told);
    no strict 'refs';
    my %listed = map { (my $n = $_) =~ s/^&//; $n => 1 } @{"${module}::EXPORT"}, @{"${module}::EXPORT_OK"};
    my $class = $module->can('new') || @{"${module}::ISA"} > grep { $_ eq 'Exporter' } @{"${module}::ISA"};
    my (@names, %seen);
    for my $name (sort keys %{"${module}::"}) {
        my $ref = *{"${module}::$name"}{CODE} or next;
        next if $name =~ /^_|\W/ || $own{$name};
        my $stash = B::svref_2object($ref)->GV->STASH;
        my $constant = B::svref_2object($ref)->CvFLAGS & B::CVf_CONST;
        next if !$constant && (!$stash || $stash->NAME ne $module);
        next if $constant && $code !~ /^\s*use\s+constant\b[^;]*\b\Q$name\E\b/m;
        my $text = described($name, $told);
        next if %listed && !$class && !$listed{$name} && !$text; # its own
        my $made = $code !~ /^[^#\n=]*\b(?:sub|method)\s+(?:\w+::)*\Q$name\E\b|^\s*use\s+constant\b[^;]*\b\Q$name\E\b|\*\Q$name\E\s*=|^\s*has\b[^;=]*\b\Q$name\E\b/ms;
        $seen{$name} = 1;
        push @names, { name => $name, kind => $constant ? 'constant' : 'sub', text => $text ? JSON::PP::true : JSON::PP::false, made => $made ? JSON::PP::true : JSON::PP::false };
    }
    for my $name (sort keys %listed) {
        next if $name !~ /^[\$\@%]\w+$/ || $code !~ /\bour\b[^;]*\Q$name\E\b|\bvars\b[^;]*\Q$name\E\b/;
        push @names, { name => $name, kind => 'variable', text => described($name, $told) ? JSON::PP::true : JSON::PP::false };
    }
    my @bases = @{ mro::get_linear_isa($module) };
    shift @bases;
    for my $base (grep { $files->{$_} } @bases) {
        my $of = text_of($files->{$base});
        my $listed = grep { *{"${base}::$_"}{ARRAY} && @{"${base}::$_"} } qw(EXPORT EXPORT_OK);
        for my $name (sort keys %{"${base}::"}) {
            my $ref = *{"${base}::$name"}{CODE} or next;
            next if $name =~ /^_|\W/ || $own{$name} || $seen{$name}++ || $of !~ /^[^#\n=]*\b(?:sub|method)\s+\Q$name\E\b/m;
            my $stash = B::svref_2object($ref)->GV->STASH;
            next if !$stash || $stash->NAME ne $base || $listed;
            push @names, { name => $name, kind => 'inherited' };
        }
    }
    return { as => $module, names => \@names };
}

# about is documentation without the sections whose heading names another package of the same file.
sub about {
    my ($module, $text) = @_;
    my ($out, $skip) = ('', 0);
    for my $part (split /^(?==head\d)/m, $text) {
        if (my ($level, $heading) = $part =~ /^=head(\d)[ \t]+([^\n]*)/) {
            $skip = 0 if $level <= $skip;
            my ($name) = $heading =~ /\b(\w+(?:::\w+)+)/;
            $skip ||= $level if $name && $name ne $module && $text =~ /^\s*package\s+\Q$name\E\s*[;{]/m;
        }
        $out .= $part unless $skip;
    }
    return $out;
}

# described reports whether a heading or an entry names something, and text follows.
sub described {
    my ($name, $pod) = @_;
    return $pod =~ /^=(?:head\d|item)[ \t]+(?:\*[ \t]*)?(?:[A-Z]<+\s*)?(?:(?:\$\w+|[\w:]+)->|[\w:]+::|&)?\Q$name\E(?:\s*\([^\n]*|\s*>+)?[ \t]*\n\n+(?!=)/m;
}

sub text_of {
    my ($file) = @_;
    open my $in, '<:raw', $file or return '';
    local $/;
    return scalar <$in>;
}
