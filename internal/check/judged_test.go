package check_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build/buildtest"
)

// judged is a project and all that is said of it.
type judged struct{ name, files, want string }

func judge(t *testing.T, cases []judged) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			assert.Equal(t, strings.TrimSpace(c.want), strings.Join(texts(run(t, buildtest.Texts(c.files), nil).Findings), "\n"))
		})
	}
}
