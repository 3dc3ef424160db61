package Tidebook::Logbook;

use 5.020;
use strict;
use warnings;
use feature 'signatures';
no warnings 'experimental::signatures';

use Exporter 'import';
use Tidebook::Logbook::Line;

our $VERSION = '2.3.0';

our @EXPORT    = qw(read_logbook);
our @EXPORT_OK = qw(hours_of metres_of feet FEET_TO_METRES);

use constant FEET_TO_METRES => 0.3048;
use constant {
    OPEN => 0,
    SHUT => 1,
};

=encoding UTF-8

=head1 NAME

Tidebook::Logbook - reads the logbooks that harbour masters wrote

=head1 SYNOPSIS

    use Tidebook::Logbook;

    my $book = Tidebook::Logbook->new(harbour => 'Ebbhaven');
    for my $line (read_logbook('1911.log')) {
        $book->add($line) if $line->is_high;
    }
    say for $book->heights;

=head1 DESCRIPTION

Old logbooks give heights in feet and hours by the bells. This module makes
L<lines|Tidebook::Logbook::Line> of them, which the engine's
L<tide.Predictor|ref:engine:tide.Predictor> can be fitted to. How the books were
written is told in L<Tidebook::Logbook::Format>.

X<harbour master>

=head1 CONSTANTS

=over 4

=item FEET_TO_METRES

How many metres a foot has.

=item OPEN

=item SHUT

Whether a book may still be written to.

=back

=head1 METHODS

=head2 new(%args)

Makes a book. The arguments are

=over 4

=item harbour

The name of the harbour, which must be given.

=item year

The year; without it, that of the first line.

=back

=cut

sub new ($class, %args) {
    die "a harbour must be given\n" unless defined $args{harbour};
    return bless { %args, lines => [], state => OPEN }, $class;
}

=head2 $book->add(@lines)

Adds lines, and gives the book itself, so that calls can stand in a row.

=cut

sub add ($self, @lines) {
    die "the book is shut\n" if $self->{state} == SHUT;
    push @{ $self->{lines} }, @lines;
    return $self;
}

=head2 my @heights = $book->heights, $book->heights_between($from, $to)

The heights in metres: all of them, or those between two hours.

=cut

sub heights ($self) {
    return map { $_->metres } @{ $self->{lines} };
}

sub heights_between ($self, $from, $to) {
    return map { $_->metres } grep { $_->hour >= $from && $_->hour <= $to } @{ $self->{lines} };
}

=head2 shut

DEPRECATED

=cut

sub shut ($self) { $self->{state} = SHUT; return }
sub harbour ($self) { return $self->{harbour} }
sub length_of ($self) { return scalar @{ $self->{lines} } }

=head2 merge($other)

Adds the lines of another book, see L<Tidebook::Logbook::Lines> and L</add>.

=cut

sub merge ($self, $other) {
    return $self->add(@{ $other->{lines} });
}

# What the bells say: eight of them end a watch of four hours.
sub _bells ($bells, $watch) { return $watch * 4 + $bells / 2 }

=head1 FUNCTIONS

=over 4

=item read_logbook($file)

Reads a file, and gives its lines. What cannot be read as a line is left out
with a warning. Exported without being asked for.

=item B<hours_of>($text)

The hour that a text such as C<4 bells, first watch> means, since noon.

=item metres_of($feet, $inches)

=item feet($metres)

Between feet with inches and metres.

=back

=cut

sub read_logbook ($file) {
    open my $in, '<:encoding(UTF-8)', $file or die "$file: $!\n";
    my @lines;
    while (my $text = <$in>) {
        next if $text =~ m{^\s*(?:#|$)};
        my $line = Tidebook::Logbook::Line->parse($text);
        if (!$line) {
            warn sprintf <<'END', $file, $.;
%s, line %d: this is no line of a logbook
END
            next;
        }
        push @lines, $line;
    }
    return @lines;
}

sub hours_of ($text) {
    my ($bells, $watch) = $text =~ m/(\d+) bells?, (\w+) watch/ or return;
    my %watches = (afternoon => 0, dog => 1, first => 2, middle => 3, morning => 4, forenoon => 5);
    return _bells($bells, $watches{$watch} // 0);
}

sub metres_of ($feet, $inches = 0) { return ($feet + $inches / 12) * FEET_TO_METRES }

sub feet ($metres) { return $metres / FEET_TO_METRES }

=head1 SEE ALSO

L<Tidebook::Logbook::Line>, and the B<harbour office for what was lost.

=head1 AUTHORS

The keepers of Tidebook.

=cut

1;
