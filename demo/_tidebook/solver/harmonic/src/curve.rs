//! Curves of height over time.

use std::ops::Deref;

use crate::{Constituent, Hours};

/// A height for every hour.
///
/// What has one can be drawn, compared and summed; see [`Series`] for the usual one.
pub trait Curve {
    /// What heights are counted from.
    const DATUM: f64 = 0.0;

    /// What the curve is told apart by.
    type Key: Ord;

    /// The height at an hour, in metres above the datum.
    fn height(&self, hour: Hours) -> f64;

    /// The key of this one.
    fn key(&self) -> Self::Key;

    /// The highest of the heights at each full hour between two.
    fn highest(&self, from: Hours, to: Hours) -> f64 {
        let mut best = f64::MIN;
        let mut hour = from.ceil();
        while hour <= to {
            best = best.max(self.height(hour));
            hour += 1.0;
        }
        best
    }
}

/// A tide as the sum of its constituents.
#[derive(Clone, Debug, Default)]
pub struct Series {
    mean: f64,
    parts: Vec<Constituent>,
}

impl Series {
    /// A tide that does not move, at a mean height in metres.
    pub const fn new(mean: f64) -> Self {
        Self { mean, parts: Vec::new() }
    }

    /// Adds a constituent.
    pub fn push(&mut self, part: Constituent) -> &mut Self {
        self.parts.push(part);
        self
    }

    /// Adds what shallow water makes of the others.
    #[cfg(feature = "shallow")]
    pub fn deepen(&mut self) {
        if let Some(m2) = self.parts.iter().find(|p| p.name == "M2") {
            let overtide = Constituent::new("M4", m2.amplitude * 0.05, m2.phase * 2.0);
            self.push(overtide);
        }
    }

    /// Keeps the constituents of which a question is true, see [`Keep`].
    pub fn retain(&mut self, keep: impl Keep) {
        self.parts.retain(|p| keep.keeps(p));
    }
}

/// Decides which constituents stay.
trait Keep {
    fn keeps(&self, part: &Constituent) -> bool;
}

impl<F: Fn(&Constituent) -> bool> Keep for F {
    fn keeps(&self, part: &Constituent) -> bool {
        self(part)
    }
}

impl Curve for Series {
    type Key = usize;

    fn height(&self, hour: Hours) -> f64 {
        self.mean + self.parts.iter().map(|p| p.at(hour)).sum::<f64>()
    }

    fn key(&self) -> usize {
        self.parts.len()
    }
}

impl Deref for Series {
    type Target = [Constituent];

    fn deref(&self) -> &[Constituent] {
        &self.parts
    }
}

/// Water that stands still, as behind a lock.
#[derive(Clone, Copy)]
pub struct Flat(pub f64);

impl Curve for Flat {
    type Key = u8;

    fn height(&self, _: Hours) -> f64 {
        self.0
    }

    fn key(&self) -> u8 {
        0
    }
}

impl Flat {
    ///
    pub fn shut(&self) -> bool {
        true
    }
}
