//! Fits constituents to what a gauge read.

use crate::{Constituent, Hours, Series};

/// One reading of a gauge.
#[derive(Clone, Copy, Debug)]
pub struct Reading {
    /// When it was made.
    pub hour: Hours,
    /// What it said, in metres.
    pub height: f64,
}

/// Why a fit failed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Fault {
    /// There are fewer readings than constituents.
    Few {
        /// How many there are.
        readings: usize,
        /// How many are needed at least.
        needed: usize,
    },
    /// A constituent has a name that [`SPEEDS`](crate::SPEEDS) does not have.
    Unknown(String),
}

impl std::error::Error for Fault {}

impl std::fmt::Display for Fault {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Fault::Few { readings, needed } => write!(f, "{readings} readings, {needed} needed"),
            Fault::Unknown(name) => write!(f, "no constituent {name}"),
        }
    }
}

/// Fits a tide to readings, one amplitude for each name.
///
/// # Errors
///
/// [`Fault::Few`] where there are too few readings, [`Fault::Unknown`] for a name that nobody knows.
///
/// # Examples
///
/// ```no_run
/// # use tidebook_harmonic::{solve, Reading};
/// # fn read() -> Vec<Reading> { Vec::new() }
/// let tide = solve(&read(), &["M2", "S2"])?;
/// # Ok::<(), tidebook_harmonic::solve::Fault>(())
/// ```
pub fn solve(readings: &[Reading], names: &[&'static str]) -> Result<Series, Fault> {
    if readings.len() < names.len() {
        return Err(Fault::Few { readings: readings.len(), needed: names.len() });
    }
    let mean = readings.iter().map(|r| r.height).sum::<f64>() / readings.len() as f64;
    let mut out = Series::new(mean);
    for name in names {
        let Some(speed) = Constituent::speed_of(name) else {
            return Err(Fault::Unknown((*name).to_string()));
        };
        let (mut sine, mut cosine) = (0.0, 0.0);
        for r in readings {
            let angle = (speed * r.hour).to_radians();
            sine += (r.height - mean) * angle.sin();
            cosine += (r.height - mean) * angle.cos();
        }
        let scale = 2.0 / readings.len() as f64;
        out.push(Constituent::new(name, scale * sine.hypot(cosine), sine.atan2(cosine).to_degrees()));
    }
    Ok(out)
}

/// How well a tide fits, see [the residual](Fit::mean) of it.
pub struct Fit {
    /// The mean of what is left over, in metres.
    pub residual: f64,
    work: Workspace,
}

impl Fit {
    /// What the solver worked with.
    pub fn workspace(&self) -> &Workspace {
        &self.work
    }
}

/// What the solver works with.
struct Workspace {
    rows: Vec<f64>,
}
