// Package policy holds no code: its test keeps the imports of all packages to
// the direction of the pipeline.
package policy
