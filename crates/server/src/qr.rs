//! Addresses as QR codes.

use std::fmt::Write;

use qrcode::render::unicode::Dense1x2;
use qrcode::{Color, EcLevel, QrCode};

/// White around a code that a camera needs, in modules (ISO/IEC 18004, from memory).
const QUIET: usize = 4;

/// The code of an address.
///
/// # Errors
/// When the address is too long for a code.
pub fn code(address: &str) -> Result<QrCode, String> {
    QrCode::with_error_correction_level(address.as_bytes(), EcLevel::M).map_err(|error| error.to_string())
}

/// The dark modules of a code as one path whose upper left corner stands at a place, a module being so wide.
#[must_use]
pub fn path(code: &QrCode, x: f64, y: f64, module: f64) -> String {
    let width = code.width();
    let mut path = String::new();
    for (place, color) in code.to_colors().into_iter().enumerate() {
        if color == Color::Dark {
            #[allow(clippy::cast_precision_loss)] // a few dozen modules
            let (column, row) = ((place % width) as f64, (place / width) as f64);
            let _ = write!(
                path,
                "M{:.3} {:.3}h{module:.3}v{module:.3}h-{module:.3}z",
                x + column * module,
                y + row * module
            );
        }
    }
    path
}

/// An address as lines of text, two modules high each, for a terminal.
///
/// # Errors
/// As [`code`].
pub fn text(address: &str) -> Result<String, String> {
    // A terminal is dark: what is printed stands for the light modules.
    let picture =
        code(address)?.render::<Dense1x2>().dark_color(Dense1x2::Light).light_color(Dense1x2::Dark).build();
    Ok(picture)
}

/// An address as a picture of its own.
///
/// # Errors
/// As [`code`].
pub fn picture(address: &str) -> Result<String, String> {
    let code = code(address)?;
    let side = code.width() + 2 * QUIET;
    #[allow(clippy::cast_precision_loss)] // four
    let corner = QUIET as f64;
    Ok(format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {side} {side}\" shape-rendering=\"crispEdges\">\
         <rect width=\"{side}\" height=\"{side}\" fill=\"white\"/><path d=\"{}\" fill=\"black\"/></svg>",
        path(&code, corner, corner, 1.0)
    ))
}
