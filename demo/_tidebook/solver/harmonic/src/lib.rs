//! Tides as sums of waves: what the engine's predictions are made of.
//!
//! A harbour's tide is a [`Series`] of [constituents](Constituent). Fit one to readings with
//! [`solve`], then ask it for heights:
//!
//! ```
//! use tidebook_harmonic::{constituent, Curve, Series};
//!
//! # fn main() {
//! let mut tide = Series::new(1.9);
//! tide.push(constituent!(M2, 1.42, 118.0));
//! assert!(tide.height(0.0) > 1.0);
//! # }
//! ```
//!
//! Whoever calls from C has [the same heights](crate::raw::harmonic_height) without a crate.
//! The sums are those of [`tide.Predictor`](ref:engine:tide.Predictor), to the millimetre.

mod constituent;
mod curve;
pub mod raw;
pub mod solve;

pub use constituent::{Constituent, Family, SPEEDS};
pub use curve::{Curve, Flat, Series};
#[doc(no_inline)]
pub use solve::{solve, Reading};

/// Hours since the beginning of the year, in the time of the harbour.
pub type Hours = f64;

/// Makes a [`Constituent`] of its name, its amplitude in metres and its phase in degrees.
///
/// The name must be one of [`SPEEDS`]; another one does not compile:
///
/// ```compile_fail
/// let none = tidebook_harmonic::constituent!(M99, 1.0, 0.0);
/// ```
#[macro_export]
macro_rules! constituent {
    ($name:ident, $amplitude:expr, $phase:expr) => {
        $crate::Constituent::new(stringify!($name), $amplitude, $phase)
    };
    ($name:ident) => {
        $crate::constituent!($name, 0.0, 0.0)
    };
}
