//! Tide tables for the office wall, a week on a sheet.

use std::fmt::{self, Display};

use tidebook_harmonic::{Curve, Hours, Series};

/// Something that can be printed on a sheet.
pub trait Printed {
    /// How it looks, in at most 80 columns.
    fn printed(&self) -> String;
}

impl<T: Display> Printed for T {
    fn printed(&self) -> String {
        self.to_string()
    }
}

/// One week of a harbour.
#[derive(Clone, Debug)]
pub struct Sheet {
    /// The harbour's name.
    pub harbour: String,
    rows: Vec<Row>,
}

/// One hour of a sheet.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Row {
    /// The hour.
    pub hour: Hours,
    /// The height in metres.
    pub height: f64,
}

impl Sheet {
    /// Fills a sheet with the heights of a [tide](tidebook_harmonic::Series), from an hour on.
    pub fn of(harbour: &str, tide: &Series, from: Hours) -> Self {
        let rows = (0..7 * 24).map(|n| from + f64::from(n)).map(|hour| Row { hour, height: tide.height(hour) }).collect();
        Self { harbour: harbour.to_string(), rows }
    }

    /// The rows at which the water is higher than a height.
    pub fn above(&self, height: f64) -> impl Iterator<Item = &Row> + '_ {
        self.rows.iter().filter(move |r| r.height > height)
    }
}

impl Display for Sheet {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        writeln!(f, "{}", self.harbour)?;
        for row in &self.rows {
            writeln!(f, "{row}")?;
        }
        Ok(())
    }
}

impl Display for Row {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:>6.1} h {:>5.2} m", self.hour, self.height)
    }
}

pub mod paper {
    /// The width of a sheet in columns.
    pub const WIDTH: usize = 80;

    /// How sheets are bound.
    #[cfg(unix)]
    pub fn printer() -> &'static str {
        "lp"
    }
}
