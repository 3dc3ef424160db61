//! The waves that a tide is made of.

use std::fmt;

/// The speeds of the constituents that are known, in degrees an hour.
pub const SPEEDS: [(&str, f64); 5] = [
    ("M2", 28.984_104),
    ("S2", 30.0),
    ("K1", 15.041_069),
    ("O1", 13.943_036),
    ("M4", 57.968_208),
];

/// One wave of a tide.
///
/// Two are alike where name, amplitude and phase are.
#[derive(Clone, Debug, PartialEq)]
#[doc(alias = "harmonic")]
#[doc(alias = "wave")]
pub struct Constituent {
    /// Which one it is, as in [`SPEEDS`].
    pub name: &'static str,
    /// How high it swings, in metres.
    pub amplitude: f64,
    /// By how many degrees it is late.
    pub phase: f64,
    speed: f64,
}

impl Constituent {
    /// Makes one by its name.
    ///
    /// # Panics
    ///
    /// Panics where no constituent has the name:
    ///
    /// ```should_panic
    /// tidebook_harmonic::Constituent::new("M99", 1.0, 0.0);
    /// ```
    pub fn new(name: &'static str, amplitude: f64, phase: f64) -> Self {
        Self { name, amplitude, phase, speed: Self::speed_of(name).expect("a known name") }
    }

    /// The speed of a constituent in degrees an hour, or `None` where nobody knows the name.
    #[must_use]
    pub fn speed_of(name: &str) -> Option<f64> {
        SPEEDS.iter().find(|(known, _)| *known == name).map(|(_, speed)| *speed)
    }

    /// What it adds to the height at an hour.
    pub fn at(&self, hour: crate::Hours) -> f64 {
        self.amplitude * (self.speed * hour - self.phase).to_radians().cos()
    }

    pub fn family(&self) -> Family {
        match self.speed {
            s if s < 20.0 => Family::Daily,
            s if s < 40.0 => Family::TwiceDaily,
            _ => Family::Shallow,
        }
    }

    /// How far it has turned at an hour.
    #[deprecated(since = "2.2.0")]
    pub fn turned(&self, hour: crate::Hours) -> f64 {
        self.speed * hour
    }
}

impl fmt::Display for Constituent {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} {:.2} m", self.name, self.amplitude)
    }
}

/// How often constituents of a kind turn.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Family {
    /// Once a day.
    Daily = 1,
    /// Twice a day.
    TwiceDaily = 2,
    /// More often: shallow water makes them of the others.
    Shallow = 4,
}
