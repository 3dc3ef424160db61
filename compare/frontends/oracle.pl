# Prints what PPI, the parsing library of Perl's analysers, finds declared in files, in the form of the other
# oracles: subs with a name, variables of packages and constants, each with its package.
use strict;
use warnings;
use PPI;
use JSON::PP;
use Time::HiRes qw(time);

my ($mode) = @ARGV;
my $json = JSON::PP->new->utf8->canonical;
my $spent = 0;
binmode STDIN, ':raw';
while (my $file = <STDIN>) {
    chomp $file;
    my $begun = time;
    my $document = eval { PPI::Document->new($file, readonly => 1) };
    $spent += time - $begun;
    next if $mode eq 'time';
    if ($mode eq 'pieces') {
        next if !$document || !eval { $document->index_locations; 1 };
        my %kind = ('PPI::Token::Number' => 2, 'PPI::Token::Quote' => 1, 'PPI::Token::QuoteLike' => 1, 'PPI::Token::Regexp' => 1, 'PPI::Token::Comment' => 3, 'PPI::Token::Pod' => 3);
        my (@pieces, %behind);
        for my $token (@{ $document->find('PPI::Token') || [] }) {
            my ($kind) = map { $kind{$_} } grep { $token->isa($_) } sort keys %kind;
            push @pieces, [$token->location->[0], $token->location->[1] - 1, $kind] if $kind;
            if ($token->isa('PPI::Token::HereDoc')) { # the text stands on the lines behind, after those of others before it
                my ($line, $lines) = ($token->location->[0], scalar(() = $token->heredoc));
                push @pieces, [$line, $token->location->[1] - 1, 1];
                push @pieces, [$line + 1 + ($behind{$line} || 0), 0, 1] if $lines;
                $behind{$line} += $lines + 1;
            }
        }
        print $json->encode({ File => $file, Pieces => \@pieces }), "\n";
        next;
    }
    if (!$document) {
        print $json->encode({ file => $file, refused => JSON::PP::true }), "\n";
        next;
    }
    my $put = sub {
        my ($name, $token, $package) = @_;
        print $json->encode({ file => $file, line => $token->location->[0], name => $name, scope => $package, public => ($name =~ /^[\$\@%]?_/ ? JSON::PP::false : JSON::PP::true) }), "\n";
    };
    my @found;
    my $done = eval { $document->index_locations; walk($document, 'main', 0, sub { push @found, [@_] }); 1 };
    if (!$done) {
        print $json->encode({ file => $file, refused => JSON::PP::true }), "\n";
        next;
    }
    $put->(@$_) for @found;
}
printf "%.6f\n", $spent if $mode eq 'time';

# walk goes through what an element holds, with the package at hand; the package of a block ends with it.
sub walk {
    my ($element, $package, $inside, $put) = @_;
    for my $child ($element->children) {
        if ($child->isa('PPI::Statement::Package')) {
            my ($block) = grep { $_->isa('PPI::Structure::Block') } $child->children;
            if ($block) {
                walk($block, $child->namespace, $inside, $put);
                next;
            }
            $package = $child->namespace;
        }
        elsif ($child->isa('PPI::Statement::Sub') && !$child->isa('PPI::Statement::Scheduled')) {
            my $name = $child->name;
            my ($token) = grep { $_->isa('PPI::Token::Word') && $_->content eq $name } $child->schildren;
            if (length $name && $token) {
                my $in = $package;
                ($in, $name) = (length $1 ? $1 : 'main', $2) if $name =~ /^(.*)::([^:]+)$/;
                $put->($name, $token, $in);
            }
            walk($child, $package, 1, $put);
            next;
        }
        elsif ($child->isa('PPI::Statement::Variable') && $child->type eq 'our' && !$inside) {
            my %declared = map { $_ => 1 } $child->variables;
            for my $token (@{ $child->find('PPI::Token::Symbol') || [] }) {
                $put->($token->content, $token, $package) if delete $declared{ $token->content };
            }
        }
        elsif ($child->isa('PPI::Token::Word') && $child->content eq 'our' && !$inside && !$element->isa('PPI::Statement::Variable')) {
            our_within($child, $package, $put);
        }
        elsif ($child->isa('PPI::Token::Word') && $child->content eq 'our' && !$inside && $child->sprevious_sibling) {
            our_within($child, $package, $put);
        }
        elsif ($child->isa('PPI::Statement::Include') && $child->type eq 'use' && $child->module eq 'constant') {
            constants($child, $package, $put);
        }
        walk($child, $package, $inside, $put) if $child->isa('PPI::Node');
    }
}

# our_within finds what a declaration in the middle of a statement declares.
sub our_within {
    my ($word, $package, $put) = @_;
    my $next = $word->snext_sibling or return;
    my @symbols = $next->isa('PPI::Token::Symbol') ? $next : $next->isa('PPI::Structure') ? @{ $next->find('PPI::Token::Symbol') || [] } : ();
    $put->($_->content, $_, $package) for @symbols;
}

sub constants {
    my ($use, $package, $put) = @_;
    my @parts = grep { !($_->isa('PPI::Token::Number')) } ($use->schildren)[ 2 .. $use->schildren - 1 ];
    my $first = $parts[0] or return;
    if ($first->isa('PPI::Structure')) {
        my $expect = 1;
        for my $expression ($first->schildren) {
            for my $token ($expression->isa('PPI::Node') ? $expression->schildren : $expression) {
                if ($expect && ($token->isa('PPI::Token::Word') || $token->isa('PPI::Token::Quote'))) {
                    my $name = $token->isa('PPI::Token::Quote') ? $token->string : $token->content;
                    my $next = $token->snext_sibling;
                    $put->($name, $token, $package) if $next && $next->content eq '=>' || $next && $next->content eq ',';
                }
                $expect = $token->isa('PPI::Token::Operator') && $token->content eq ',' ? 1 : 0;
            }
        }
        return;
    }
    my $name = $first->isa('PPI::Token::Word') ? $first->content : $first->isa('PPI::Token::Quote') ? $first->string : return;
    $put->($name, $first, $package) if $name =~ /^\w+$/;
}
