package perl_test

import (
	"cmp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/growth"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/perl"
	"codrel/internal/lexing"
)

var end = perl.FrontEnd{}

func TestFixtures(t *testing.T) { langtest.Run(t, end, "testdata/read") }

func FuzzRead(f *testing.F) { langtest.Fuzz(f, end, "testdata/read") }

func BenchmarkRead(b *testing.B) { langtest.Benchmark(b, end, "PERL_TREE") }

func TestGrowth(t *testing.T) {
	var more []growth.Form
	for _, open := range []string{"=head2 a\n\n", "=over\n\n", "=item a\n\n", "sub a {\n", "<<A ", "s{a}{", "q(", "$#{", "package a;\n", "has a => 1;\n", "=head2 a, a, a\n\nB<a\n\n", "sub a { }\n=head2 a\n\nx\n\n=cut\n", "my $a = shift;\n", "use constant { A => 1, ", "@EXPORT = qw(a b);\n", "/ a ", "y a ", "{ package a; ", "format A =\n", "format A =", "format A b ", "*{\"a$x\"} = sub { 1 };\n", "$x = \"a$x\";\n*$x = sub { };\n", "for (qw(a b)) { *$_ = sub { }; ", "eval \"sub a$_ { }\" for @a;\n@a = (@a, @a);\n", "our @ISA = \"A::$x\" . $x;\n", "*$x = sub { } ? $x : ", "$h{a} = [@a]; use vars map {@$_} values %h;\n"} {
		more = append(more, growth.Repeat(open, open))
	}
	langtest.Growth(t, end, "testdata/read", more...)
}

func TestDepth(t *testing.T) {
	texts := map[string]string{}
	for name, piece := range map[string]string{"blocks": "{", "calls": "a(", "lists": "[", "subs": "sub a { ", "packages": "package A { ", "hashes": "$a{", "heredocs": "<<A, ", "pod": "=over\n\n", "codes": "=head1 B<", "quotes": "q{", "patterns": "s{", "classes": "class A { "} {
		texts[name] = strings.Repeat(piece, 20_000)
	}
	langtest.Depth(t, end, texts)
}

// What looks like code and is none, and the other way round.
func TestTraps(t *testing.T) {
	langtest.Cases(t, end, "lib/A.pm", `
$x = $y / 2; sub a { } $z = "/";
=> 1 function a()

split /sub b {/, $x; sub c { }
=> 1 function c()

$h{s} = 1; $h{y} / 2; s => 1, q => 2; sub d { }
=> 1 function d()

$x =~ s,sub e {,},; sub f { }
=> 1 function f()

print <<A, <<"B"; sub g { }
sub no { }
A
sub nor { }
B
sub h { }
=> 1 function g()
=> 6 function h()

my %x = (sub => 1, package => 2); $x->sub; $x->package; sub i { }
=> 1 function i()

sub j($$) { } sub k($x, %y) { } sub l { my ($self, undef, @z) = @_; } sub m { my $self = shift; my $n = shift // 3; my $o = other(); }
=> 1 function j()
=> 1 function k($x, %y)
=> 1 function l($self, undef, @z)
=> 1 function m($self, $n)

package
  A::B
; sub n { }
=> 3 function n()

-s $file ? 1 : 0; -d "x"; sub o { }
=> 1 function o()

@{$x->{a}} = map { { b => 1 } } @$y; $#{$z}; $#_; $#x; %$q; &$r; sub p { }
=> 1 function p()

$x->@*; $x->%*; $y->$#*; *name = *"; sub q { }
=> 1 function q()

qw# sub r { #; sub t { }
=> 1 function t()

tr/{/}/; y({)(}); m{a{1,2}}x; qr'}'; sub u { }
=> 1 function u()

$x = <STDIN>; $y < $z; <$fh>; sub v { }
=> 1 function v()

*y = sub { my ($self, $n) = @_; }; *z = \&y; *{"a"} = sub { }; *b = $c; sub d { *e = sub { } }
=> 1 function y($self, $n)
=> 1 function z()
=> 1 function a()
=> 1 function d()

*y = *z = \&a; *b = *c; *g = *d; *d = *e = sub { my ($n) = @_; };
=> 1 function y()
=> 1 function z()
=> 1 function d($n)
=> 1 function e($n)

sub ::far($x) { } sub near { ::far(1) }
=> 1 function far($x)
=> 1 function near()

*y = *z; sub z { }
=> 1 function y()
=> 1 function z()

croak << "HERE"; sub w { }
}
HERE
sub x { }
=> 1 function w()
=> 4 function x()`)
}

// Names that are put together, in loops and texts that are run.
func TestComputedNames(t *testing.T) {
	langtest.Cases(t, end, "lib/A.pm", `
for my $call (qw(read take)) { no strict 'refs'; *$call = sub { my ($self, $n) = @_; } }
=> 1 function read($self, $n)
=> 1 function take($self, $n)

my @calls = ('get', "set"); *{"${_}_tide"} = sub ($x) { } foreach @calls;
=> 1 function get_tide($x)
=> 1 function set_tide($x)

my %calls = (low => sub { }, 'high', sub { }); while (my ($name, $code) = each %calls) { *{__PACKAGE__ . "::$name"} = \&{$code}; }
=> 1 function low()
=> 1 function high()

eval "sub is_$_ { 1 }" for 'wet', 'dry'; eval qq{sub big () { !! 1 }}; eval { "sub none { }" };
=> 1 function is_wet()
=> 1 function is_dry()
=> 1 function big()

for (keys %{$x}, qw(a b)) { my $code; $code = "sub no_$_ { }"; eval $code; eval 'sub $_ { }' }
=> 1 function no_a()
=> 1 function no_b()

*y = sub ($n) { }; *Tide::Low::take = sub { my ($self) = @_; };
=> 1 function y($n)
=> 1 function take($self)

sub BEGIN { for my $m (qw(parser)) { *$m = sub { } } }
=> 1 function parser()

sub made { *{"inside_$_"} = sub { } for qw(a b); } *{$unknown} = sub { }; *{"$unknown\::x"} = sub { }; *{"c"} = \$x;
=> 1 function made()

use vars qw($x @y), map {@$_} values %more; use vars map {@$_} values %vars;
=> 1 variable $x
=> 1 variable @y

$vars {low} = [qw($a $b)]; use vars map {@$_} values %vars;
=> 1 variable $a
=> 1 variable $b

use AutoLoader; sub now { } 1; __END__ sub later { }
=> 1 function now()
=> 1 function later()`)
}

// What bases can be: those of systems are all said, in the order of the text.
func TestComputedBases(t *testing.T) {
	for text, want := range map[string]string{
		`use constant HOME => join '::', __PACKAGE__, $x ? $^O : 'UNIX'; use base HOME;`:    "A::UNIX",
		`my $module = $module{$^O} || 'Unix'; our @ISA = ("File::Spec::$module");`:          "File::Spec::Unix",
		`use parent -norequire, "Tide::Log", 'Tide::' . ($x ? 'Low' : 'High');`:             "Tide::Log Tide::Low Tide::High",
		`extends 'Tide', $x; with 'Tide::Reads' => { -excludes => ['Tide::Not'] };`:         "Tide Tide::Reads",
		`my @bases = qw(Tide Log); push @ISA, @bases; our $x = $y; $y = $x; push @ISA, $x;`: "Tide Log",
	} {
		facts := langtest.Read(end, "lib/A.pm", []byte("package A; "+text))
		var got []string
		for _, c := range facts.Classes {
			got = append(got, c.Base)
		}
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
}

// Headings and entries that name something, and such that do not.
func TestWhatTextSpeaksOf(t *testing.T) {
	for heading, attached := range map[string]bool{
		"=head2 read": true, "=head2 read()": true, "=head2 read($file, \\%how)": true, "=head3 C<read>": true, "=head2 $log->read($x)": true, "=head2 Tide::Log->read": true, "=head2 my @lines = $log->read": true,
		"=head2 B<read> FILE, LINE": true, "=head2 read $file": true, "=head1 read": true, "=head2 read, write": true, "=head2 read / write": true, "=head2 read() and write()": true, "=head4 &read": true, "=head2 read => 'x'": true,
		"=head2 ($a, $b) = read(1)": true, "=head2 C<< $log->read( $x ) >>": true, "=head2 X<reading>read": true, "=head2 method read": true,
		"=head2 read users first": false, "=head2 Reading": false, "=head2 unread": false, "=head2 read and weep": false, "=head2 The read method": false,
	} {
		facts := langtest.Read(end, "lib/Tide/Log.pm", []byte("package Tide::Log;\n\n"+heading+"\n\nText.\n\n=cut\n\nsub read { }\nsub write { }\n1;\n"))
		require.Len(t, facts.Occurrences, 2)
		assert.Equal(t, attached, facts.Occurrences[0].Doc != nil, heading)
		assert.Equal(t, !attached, facts.ModuleDoc != nil, heading)
	}
}

// An entry in what describes something else speaks of a declaration too that nothing else describes.
func TestSharedEntries(t *testing.T) {
	facts := langtest.Read(end, "lib/Tide.pm", []byte("package Tide;\n\n=head2 new\n\nMakes one.\n\n=over\n\n=item depth\n\nHow deep.\n\n=over\n\n=item *\n\nsaid\n\n=back\n\nIn metres.\n\n=item salt\n\nHow salty.\n\n=item bare\n\n=back\n\n=head2 salt\n\nIs salty.\n\n=cut\n\nsub new { }\nsub depth { }\nsub salt { }\nsub bare { }\n1;\n"))
	got := map[string]string{}
	for _, o := range facts.Occurrences {
		if o.Doc != nil {
			got[o.Name] = strings.Join(strings.Fields(o.Doc.Text), " ")
		}
	}
	assert.Equal(t, map[string]string{
		"new":   "Makes one. =over =item depth How deep. =over =item * said =back In metres. =item salt How salty. =item bare =back",
		"depth": "How deep. =over =item * said =back In metres.", "salt": "Is salty.",
	}, got)
}

// A file of documentation is about the package that it names, where its folder does not tell.
func TestPackageOfDocumentation(t *testing.T) {
	for text, want := range map[string]string{"=head1 NAME\n\nTide::Low - ebbs\n": "Tide::Low", "=head1 NAME\n\nOther::Name - ebbs\n": "Low", "=head1 AUTHOR\n\nTide::Low\n": "Low"} {
		assert.Equal(t, want, langtest.Read(end, "Tide/Low.pod", []byte(text)).Package, text)
	}
}

// Documentation is about the package that it names, that of the code around it, or the file's own.
func TestWhichPackageTextSpeaksOf(t *testing.T) {
	const code = "package Tide;\nsub read { }\npackage Tide::Low;\nsub read { }\nsub low { }\n"
	for text, want := range map[string]string{
		code + "=head1 NAME\n\nTide - reads\n\n=head2 read\n\nReads.\n":                                                                            "Tide",
		code + "=head1 NAME\n\nTide::Low - reads\n\n=head2 read\n\nReads.\n":                                                                       "Tide::Low",
		code + "__END__\n\n=head2 read\n\nReads.\n":                                                                                                "Tide",
		code + "__END__\n\n=head1 NAME\n\nTide - reads\n\n=head1 METHODS\n\n=head2 Tide::Low\n\n=over\n\n=item read ($x)\n\nReads low.\n\n=back\n": "Tide::Low",
		code + "__END__\n\n=head1 NAME\n\nTide - reads\n\n=head2 C<Tide::Low> methods\n\nSome.\n\n=head2 read\n\nReads.\n":                         "Tide",
		"package Tide;\nsub read { }\npackage Tide::Low;\nsub a { }\n\n=head2 read\n\nReads.\n\n=cut\n\nsub read { }\nsub b { }\n":                 "Tide::Low",
	} {
		got := ""
		for _, o := range langtest.Read(end, "lib/Tide.pm", []byte(text)).Occurrences {
			if o.Doc != nil {
				got += cmp.Or(o.In(), "Tide")
			}
		}
		assert.Equal(t, want, got, text)
	}
}

// Of several headings of one name, the one that speaks of the declaration has its text; the others stay where they are
// (a heading over what went away is the name of a group).
func TestRivals(t *testing.T) {
	const code = "package Tide;\nsub start { }\n1;\n"
	for text, want := range map[string]string{
		code + "=head1 EVENTS\n\n=head2 start\n\nEmitted.\n\n=head1 METHODS\n\n=head2 start\n\nStarts.\n":                                   "Starts. | =head1 EVENTS\n\n=head2 start\n\nEmitted.",
		code + "=head1 METHODS\n\n=head2 start\n\nStarts.\n\n=head1 EVENTS\n\n=head2 start\n\nEmitted.\n":                                   "Starts. | =head1 EVENTS\n\n=head2 start\n\nEmitted.",
		code + "=head2 start\n\nOne.\n\n=head2 start\n\nTwo.\n":                                                                             "One.\n\nTwo. | ",
		code + "=head2 start\n\nOne.\n\n=head2 start\n\n  $tide->start(1);\n\nTwo.\n":                                                       "One.\n\n  $tide->start(1);\n\nTwo. | ",
		code + "=over\n\n=item start\n\nOne.\n\n=item Tide->start(%options)\n\nTwo.\n\n=back\n":                                             "One.\n\n=item Tide->start(%options)\n\nTwo. | ",
		code + "=over\n\n=item start\n\nShort.\n\n=back\n\n=head2 start\n\nLong.\n":                                                         "Long. | =over\n\n=item start\n\nShort.\n\n=back",
		code + "=head1 OPTIONS\n\n=over\n\n=item start\n\nWhen.\n\n=back\n\n=head1 FUNCTIONS\n\n=over\n\n=item start\n\nStarts.\n\n=back\n": "Starts. | =head1 OPTIONS\n\n=over\n\n=item start\n\nWhen.\n\n=back",
	} {
		facts := langtest.Read(end, "lib/Tide.pm", []byte(text))
		require.NotNil(t, facts.Occurrences[0].Doc, text)
		got := facts.Occurrences[0].Doc.Text + " | "
		if facts.ModuleDoc != nil {
			got += facts.ModuleDoc.Text
		}
		assert.Equal(t, want, got, text)
	}
}

// What is wrong with the markup, each at its place.
func TestMistakes(t *testing.T) {
	for text, want := range map[string]string{
		"=head1 A\n\nText.\n\n=cut\n":                                              "",
		"=head1 A\nText.\n\n=cut\n":                                                "1 line behind",
		"=head1 A\n\nText.\n=head2 B\n\n=cut\n":                                    "4 line before",
		"=hedd1 A\n\n=cut\n":                                                       "1 command",
		"=item a\n\n=cut\n":                                                        "1 item",
		"=over\n\n=item a\n\n=cut\n":                                               "1 over",
		"=over\n\n=item * a\n\n=item b\n\n=back\n\n=cut\n":                         "5 mixed",
		"=back\n\n=cut\n":                                                          "1 back",
		"=pod\n\nB<a\n\n=cut\n":                                                    "3 unclosed",
		"=pod\n\nC<< a->b >> C<a> L<a|b> B<< a >>\n\n=cut\n":                       "",
		"=pod\n\n  verbatim B<\n\n=cut\n":                                          "",
		"=pod\n\né\n\n=cut\n":                                                      "3 encoding",
		"=encoding UTF-8\n\né\n\n=cut\n":                                           "",
		"=begin html\n\n=item a B<\n\n=end html\n\n=cut\n":                         "",
		"=pod\n\nC<a\n=E<gt> b>\n\n=cut\n":                                         "",
		"=over\n\n=item 1.\n\n=item 2.\n\n=back\n\n=cut\n":                         "",
		"=over\n\n=item 1 A\n\n=item 1.1 B\n\n=item 2 C\n\n=back\n\n=cut\n":        "",
		"=over\n\n=item 5.10.0\n\nOld.\n\n=item Cover\n\nX.\n\n=back\n\n=cut\n":    "",
		"=over\n\n=item Ada\n\n=item *W\n\n=item\nC<next line>\n\n=back\n\n=cut\n": "",
		"=over\n\n=item 1 A\n\n=item b\n\n=back\n\n=cut\n":                         "5 mixed",
	} {
		facts := langtest.Read(end, "lib/A.pm", []byte(text+"1;\n"))
		var got []string
		for _, p := range facts.Problems {
			got = append(got, strconv.Itoa(p.Place.At.Line)+" "+p.Form)
		}
		assert.Equal(t, want, strings.Join(got, ", "), text)
	}
}

// Pieces of the code are told apart for pages.
func TestScan(t *testing.T) {
	text := "# c\nmy $x = 'a' + 12; # d\n=pod\n\n=cut\nif (/b/) { qw(c) }\nmy $y = eval { 1 } // 2;\nsub undo { }\n/d/;\n"
	var got []string
	for _, p := range end.Scan(text, nil) {
		got = append(got, map[lexing.Class]string{lexing.Comment: "c", lexing.Keyword: "k", lexing.Text: "t", lexing.Number: "n"}[p.Class]+":"+p.Span.In(text))
	}
	assert.Equal(t, []string{"c:# c", "k:my", "t:'a'", "n:12", "c:# d", "c:=pod\n\n=cut", "k:if", "t:/b/", "t:qw(c)", "k:my", "k:eval", "n:1", "n:2", "k:sub", "t:/d/"}, got)
}
