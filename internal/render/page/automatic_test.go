package page_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// Automatic traits of Rust are said where all fields are known, and not where anything is not.
func TestAutomaticTraits(t *testing.T) {
	s, m := made(t, map[string]string{"Cargo.toml": "[package]\nname = \"tide\"\n", "src/lib.rs": `
use std::{rc::Rc, cell::RefCell, collections::HashMap};
pub struct Plain { pub a: u8, b: Vec<Option<String>>, c: &'static str }
pub struct Counted { a: Rc<u8> }
pub struct Celled { a: RefCell<HashMap<String, u8>> }
pub struct Pointing { a: *const u8 }
pub struct Through { a: Counted, b: u8 }
pub struct Circle { next: Option<Box<Circle>> }
pub struct Generic<T> { a: T }
pub struct Dynamic { a: Box<dyn Fn()> }
pub struct Foreign { a: other::Thing }
pub struct Shared { a: std::sync::Arc<u8> }
pub struct Said { a: *mut u8 }
unsafe impl Send for Said {}
pub struct Tuple(u8, pub Rc<u8>);
pub enum Kind { A, B(u8), C { a: Counted } }
pub enum Bare { A, B }
pub struct Unit;
pub struct Leading(Plain);
impl std::ops::Deref for Leading { type Target = Plain; fn deref(&self) -> &Plain { &self.0 } }
impl std::ops::Deref for Unit { type Target = [u8]; fn deref(&self) -> &[u8] { &[] } }
pub type Named = Vec<u8>;
pub struct Aliased { a: Named }
pub struct Constant { a: [u8; MAX] }
pub trait Gauge {}
`})
	notes := &page.Notes{Maker: m, Plan: plan.New(s.Links, plan.Options{Source: plan.FullSource})}
	got, leads := map[string]string{}, map[string]string{}
	for _, module := range s.Project.Libraries[0].Modules {
		for d := range module.Declarations {
			for _, one := range notes.Relations(d) {
				text := sentence(one)
				if rest, ok := strings.CutPrefix(text, "Dereferences to "); ok {
					leads[d.Path()] = rest
				}
				if strings.HasSuffix(text, "as far as its fields tell.") {
					got[d.Path()] = strings.TrimSuffix(text, ", as far as its fields tell.")
				}
			}
		}
	}
	assert.Equal(t, map[string]string{
		"Plain": "Send and Sync", "Counted": "Neither Send nor Sync", "Celled": "Send, but not Sync", "Pointing": "Neither Send nor Sync", "Through": "Neither Send nor Sync", "Circle": "Send and Sync",
		"Tuple": "Neither Send nor Sync", "Kind": "Neither Send nor Sync", "Bare": "Send and Sync", "Unit": "Send and Sync", "Leading": "Send and Sync", "Aliased": "Send and Sync",
	}, got)
	assert.Equal(t, map[string]string{"Leading": "Plain(Plain), whose methods it has."}, leads, "with the link in brackets")
}
