package lexing

// Shape says, as data, with what a language writes comments, strings and what else decides
// where code ends. Languages that descend from C differ in little more.
type Shape struct {
	Names    *[256]bool        // bytes of names, see [NameBytes]
	Blanks   []string          // of several bytes each, which part words as a space does
	Keyword  func(string) bool // nil where there are none
	Comments []CommentShape    // the first that fits is taken
	Strings  []StringShape     // the first that fits is taken
	Marks    []string          // of several bytes that are one token; the first that fits is taken

	// Directive begins a line that speaks to a preprocessor, as "#" does in C. A backslash
	// at its end takes the next line along. 0 for none.
	Directive byte
	// Aside are the words of such lines that decide nothing of what is read: they make no token.
	Aside map[string]bool
	// Off are the conditions under which no compiler reads what such lines enclose.
	Off map[string]bool
	// Assume says of conditions whether they hold, where only one branch can be read.
	Assume map[string]bool
	// Ends reports whether a declaration may end with a word, as with a macro that stands for
	// one; nil where it never does.
	Ends func(word string) bool
	// Rather is a word of the head that is taken where branches of such lines give a body
	// several (see [Stream.Settle]); "" where the first one is.
	Rather string
	// Body reports whether "{" behind the tokens of a text begins a body in which nothing is
	// declared for others. Such bodies are passed over where nobody asks what names in code
	// mean. nil where none are.
	Body func(text string, before []Token) bool
	// Joined says that a backslash at the end of a line joins it with the next in comments too.
	Joined bool
	// Heredocs says that <<END, <<"END", <<'END' and each of them with "~" take the
	// lines from the next one on, to one that is END.
	Heredocs bool
	// DigitMark may stand between the digits of a number, as in C++'s 1'000. 0 for none.
	DigitMark byte
	// LeadingDigit says that a number begins with a digit: a point before one is a mark of its own, as in
	// Rust's pair.0.
	LeadingDigit bool
}

// CommentShape is one form of comments.
type CommentShape struct {
	Open   string
	Close  string // "" where the line's end closes it
	Nested bool   // each that is opened in it must be closed too
}

// StringShape is one form of strings.
type StringShape struct {
	Prefixes []string // one of which stands before it; nil where it needs none
	Open     string
	Close    string // "" where it is as Open
	Escape   byte   // takes the next byte along; 0 for none
	Doubled  bool   // what closes it, twice, is a part of it
	Lines    bool   // it may hold line ends
	// Fence may stand, any number of times, between prefix and Open, and stands as often
	// behind what closes it, as in Rust's r##"a"b"##. 0 for none.
	Fence byte
	// Fences is how often it stands there at least. A string may have nothing but these
	// around it, as C#'s """a"b""" has.
	Fences int
	// Delimited says that between Open and "(" may stand a word, which then stands between
	// ")" and Close, as in C++'s R"x(a)"b)x".
	Delimited bool
	// Hole begins code in the string, to the next "}", as "${" does. "" for none.
	Hole string
	// HoleLines says that the code may hold line ends where the string itself may not.
	HoleLines bool
	// Character says that it holds one character. Where it does not, as in Rust's 'a, what
	// opens it is a mark.
	Character bool
}

func (s *StringShape) closing() string {
	if s.Close == "" {
		return s.Open
	}
	return s.Close
}

// first is the byte that a string without a prefix begins with.
func (s *StringShape) first() byte {
	if s.Open == "" {
		return s.Fence
	}
	return s.Open[0]
}
