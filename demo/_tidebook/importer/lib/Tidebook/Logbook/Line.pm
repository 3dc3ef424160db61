package Tidebook::Logbook::Line;

use Moo;

=head1 NAME

Tidebook::Logbook::Line - one line of a logbook

=head1 ATTRIBUTES

=head2 hour

The hour since noon.

=head2 feet

=head2 inches

The height as it was written.

=head2 remark

What the harbour master thought of it, or nothing.

=cut

has hour => (is => 'ro', required => 1);
has [qw(feet inches)] => (is => 'ro', default => 0);
has remark => (is => 'rw');
has berth => (is => 'ro');

=head1 METHODS
=head2 parse($text)

Makes a line of a text, or gives nothing.

=item $text

The text.

=cut

sub parse {
    my ($class, $text) = @_;
    my ($bells, $feet, $inches, $remark) = $text =~ m/^(.*?watch)\s+(\d+)'\s*(\d+)?"?\s*(.*)$/ or return;
    return $class->new(hour => $bells, feet => $feet, inches => $inches // 0, remark => $remark);
}

=head2 metres

The height in metres.

=cut

sub metres {
    my $self = shift;
    return ($self->feet + $self->inches / 12) * 0.3048;
}

=head2 is_high

Whether the line says that the tide was high.

=cut

sub is_high { my $self = shift; return ($self->remark // q{}) =~ /high/i }

sub BUILD { }

package Tidebook::Logbook::Fault {
    our $LAST;

    sub throw {
        my ($class, $message) = @_;
        $LAST = bless { message => $message }, $class;
        die $LAST;
    }

    sub message { my $self = shift; return $self->{message} }
}

1;
