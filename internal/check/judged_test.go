package check_test

import (
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
)

// judged is a project and all that is said of it.
type judged struct{ name, files, want string }

func judge(t *testing.T, cases []judged) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			files := map[string]string{}
			for _, f := range txtar.Parse([]byte(c.files)).Files {
				files[f.Name] = string(f.Data)
			}
			assert.Equal(t, strings.TrimSpace(c.want), strings.Join(texts(run(t, files, nil).Findings), "\n"))
		})
	}
}
