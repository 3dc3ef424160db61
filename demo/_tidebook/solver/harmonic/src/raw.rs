//! Heights for callers from C: see the driver's [`tg_open`](ref:driver:tg_open).

use crate::{Curve, Series};

/// The height at an hour, in metres.
///
/// # Safety
///
/// `tide` must come from [`harmonic_new`] and must not have been given to [`harmonic_free`].
#[no_mangle]
pub unsafe extern "C" fn harmonic_height(tide: *const Series, hour: f64) -> f64 {
    unsafe { (*tide).height(hour) }
}

/// Makes a tide that does not move, at a mean height in metres.
#[no_mangle]
pub extern "C" fn harmonic_new(mean: f64) -> *mut Series {
    Box::into_raw(Box::new(Series::new(mean)))
}

/// Gives a tide back.
#[no_mangle]
pub unsafe extern "C" fn harmonic_free(tide: *mut Series) {
    drop(unsafe { Box::from_raw(tide) });
}
