package site_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// solver is what natives write: a workspace of two crates, one of which uses the other.
const solver = `
-- Cargo.toml --
[workspace]
members = ["solver", "print"]
-- solver/Cargo.toml --
[package]
name = "tide-solver"
version = "0.3.0"
edition = "2021"
-- solver/src/lib.rs --
//! Predicts tides.
//!
//! Begin with [` + "`Solver::new`" + `].
#![warn(missing_docs)]
pub use harmonic::{Constituent, Solver};
mod harmonic;
pub mod error;

/// Makes a list of [Constituent]s.
#[macro_export]
macro_rules! constituents {
    ($($name:ident),*) => { vec![$($crate::Constituent::$name()),*] };
}
-- solver/src/harmonic.rs --
use crate::error::Error;
use std::fmt;

/// One wave of many.
#[derive(Debug, Clone)]
pub struct Constituent {
    /// In metres.
    pub amplitude: f64,
    phase: f64,
}

/// Predicts heights out of [constituents](Constituent).
///
/// # Examples
///
/// ` + "```" + `
/// # use tide_solver::*;
/// let solver = Solver::new(vec![]);
/// ` + "```" + `
pub struct Solver<T = f64> { all: Vec<Constituent>, step: T }

impl<T: Copy> Solver<T> {
    /// Makes one.
    pub fn new(all: Vec<Constituent>) -> Result<Self, Error> { Err(Error::Empty) }
    /// Gives the height.
    #[deprecated(note = "use ` + "`at`" + `")]
    pub fn height(&self, hour: u32) -> f64 { self.all.len() as f64 }
    /// Gives the height at an hour.
    #[cfg(feature = "deep")]
    #[must_use]
    pub fn at(&self, hour: u32) -> f64 { 0.0 }
    fn own(&self) {}
}

impl fmt::Display for Constituent {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result { write!(f, "{}", self.amplitude) }
}
-- solver/src/error.rs --
//! What goes wrong.
/// Why nothing can be predicted.
#[non_exhaustive]
pub enum Error {
    /// There is nothing to add up.
    Empty,
    /// Too far ahead.
    Far { /// By how much.
        hours: u32 },
}
-- print/Cargo.toml --
[package]
name = "tide-print"
version = "0.3.0"
-- print/src/lib.rs --
//! Prints tables.
use tide_solver::Solver;
/// Prints what a [Solver] predicts.
pub fn print(solver: &Solver) {}
pub fn bare() {}
`

func TestSiteOfRust(t *testing.T) {
	files := archived(solver)
	set := settings.Default()
	found := foundIn(t, files, set)
	assert.ElementsMatch(t, []string{"print/src/lib.rs undocumented"}, found)

	m := rendered(t, files, set, 2)
	requireSound(t, asFS(m))
	const root = "reference/solver/"
	crate := string(m.Get(root + "tide_solver/index.html"))
	require.NotEmpty(t, crate)
	assert.Contains(t, crate, `<span class="kind">crate</span>`)
	assert.Contains(t, crate, "Predicts tides.")
	assert.Contains(t, crate, "Version 0.3.0")
	assert.Contains(t, crate, `<a href="Solver.html#new"><code translate="no">Solver::new</code></a>`, "a name in brackets leads there")
	assert.Contains(t, between(t, crate, `id="macro:constituents"`, "</section>"), "macro_rules! ", "a macro for all is the crate's")
	assert.Nil(t, m.Get(root+"tide_solver~3a~~3a~harmonic/index.html"), "a module that is not for users has no page")

	page := string(m.Get(root + "tide_solver/Solver.html"))
	require.NotEmpty(t, page)
	assert.Contains(t, page, "use tide_solver::Solver;")
	assert.Contains(t, page, `<a href="Constituent.html">constituents</a>`)
	assert.Contains(t, page, "<b>let</b> solver = Solver::new")
	assert.NotContains(t, between(t, page, ">Examples</h", "</pre>"), "use tide_solver", "lines for the compiler are left out")
	assert.Contains(t, between(t, page, `id="new"`, "</section>"), `<a href="../tide_solver~3a~~3a~error/Error.html"`)
	assert.Contains(t, between(t, page, `id="height"`, "</section>"), "use <code translate=\"no\">at</code>")
	assert.Contains(t, between(t, page, `id="at"`, "</section>"), "line 31, only with the feature deep.")
	assert.NotContains(t, page, `id="own"`)

	wave := string(m.Get(root + "tide_solver/Constituent.html"))
	assert.Contains(t, wave, "In metres.")
	assert.NotContains(t, wave, "phase")
	failure := string(m.Get(root + "tide_solver~3a~~3a~error/Error.html"))
	assert.Contains(t, failure, "There is nothing to add up.")
	assert.Contains(t, failure, "By how much.")

	print := string(m.Get("reference/print/tide_print/index.html"))
	assert.Contains(t, between(t, print, `id="print"`, "</section>"), `<a href="../../solver/tide_solver/Solver.html">`, "into the other crate")
}
