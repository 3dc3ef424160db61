package formula_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose"
	"codrel/internal/prose/formula"
	"codrel/internal/source"
)

// shown writes a formula as a line: raised parts behind "^", lowered ones behind "_",
// and nothing where it is not drawn.
func shown(nodes []prose.Node) string {
	var b strings.Builder
	for _, n := range nodes {
		switch n.Kind {
		case prose.Superscript:
			b.WriteString("^{" + shown(n.Children) + "}")
		case prose.Subscript:
			b.WriteString("_{" + shown(n.Children) + "}")
		default:
			b.WriteString(n.Text + shown(n.Children))
		}
	}
	return b.String()
}

func TestWhatIsDrawn(t *testing.T) {
	for tex, want := range map[string]string{
		`x`:                             "x",
		`h_i^2 \le 3.5`:                 "h_{i}^{2} ≤ 3.5",
		`\alpha\cdot\mathrm{depth}`:     "α ⋅ depth",
		`\frac{a+b}{2}`:                 "(a + b)/2",
		`\frac12`:                       "1/2",
		`\sqrt{x}`:                      "√x",
		`\sqrt{x^2 + 1}`:                "√(x^{2} + 1)",
		`\left( x \right)`:              "(x)",
		`\left. x \right|_0`:            "x|_{0}",
		`\hat{x} = \bar y`:              "x\u0302 = y\u0304",
		`\log x`:                        "log x",
		`\mathbf{A} \in \Omega`:         "A ∈ Ω",
		`\text{low tide} < h`:           "low tide < h",
		`x^{a_{b}}`:                     "x^{a_{b}}",
		`-1`:                            "−1",
		`\begin{matrix}1\end{matrix}`:   "",
		`\unknown x`:                    "",
		`a & b`:                         "",
		`{x`:                            "",
		`x}`:                            "",
		`^2`:                            "",
		`\sqrt[3]{x}`:                   "",
		`x = -y`:                        "x = −y",
		`(-1)`:                          "(−1)",
		`\frac{a}`:                      "",
		`\hat{ab}`:                      "",
		strings.Repeat("{", 50) + "x":   "",
		strings.Repeat("x+", 400) + "x": "",
		`\text{open`:                    "",
		`\`:                             "",
		"":                              "",
	} {
		n := formula.Node(tex, false, source.Span{})
		assert.Equal(t, want, shown(n.Children), tex)
		assert.Equal(t, strings.TrimSpace(tex), n.Text, "the source stays to the letter")
	}
}

func TestWhereFormulasStand(t *testing.T) {
	for text, want := range map[string]string{
		`$x$`:            "x",
		`$h_i$ and more`: "h_i",
		`$\alpha$, then`: `\alpha`,
		`$$a b$$`:        "a b",
		`\(x_1\)`:        "x_1",
		`\[a = b\]`:      "a = b",
		`$f(x)$`:         "f(x)",
		`$O(n \log n)$`:  `O(n \log n)`,
		`$5 and $6`:      "",
		`$5, or 5$`:      "",
		`$HOME/$USER`:    "",
		`$name$`:         "",
		`$ x $`:          "",
		"$a\n\nb$":       "",
		"$a `b$` c":      "",
		`\(optional\)`:   "",
		`\(\d+\)`:        "",
		`\[see below\]`:  "",
		`$$`:             "",
		"$$a\n\nb$$":     "",
		`$tides=3$`:      "",
		`no`:             "",
	} {
		found, ok := formula.At(text, 0)
		assert.Equal(t, want, found.Text, text)
		assert.Equal(t, want != "", ok, text)
		if ok {
			assert.True(t, strings.HasPrefix(text, text[:found.End]) && found.End > len(found.Text), text)
		}
	}
	_, ok := formula.At("US$x$", 2)
	assert.False(t, ok, "money behind a word")
}
