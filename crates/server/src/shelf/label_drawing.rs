//! Labels drawn once, as SVG in millimetres; the PDF holds the same.

use std::fmt::Write;
use std::sync::{Arc, LazyLock};

use bodega_core::crates::fruit::{Kind, common_kind};
use bodega_core::plan::yields::Thickness;
use bodega_core::records::batch::Batch;
use bodega_core::records::jar::JarRecord;
use bodega_core::records::lot::Lot;
use bodega_core::shelf::label_sheet::Spot;
use bodega_core::tables::process::{Medium, Pack, Product};
use bodega_core::towel::seal::BEST_MONTHS;
use krilla::geom::Size;
use krilla::page::PageSettings;
use krilla_svg::{SurfaceExt, SvgSettings};
use qrcode::QrCode;
use serde::Serialize;
use uom::si::length::millimeter;
use utoipa::ToSchema;

use crate::clock::{day_after_months, day_of};
use crate::problem::ApiError;
use crate::qr;

/// White around the sheet that a printer cannot reach.
pub(crate) const MARGIN_MM: f64 = 5.0;

/// Typeface of the labels; it ships with the program.
pub(crate) const FAMILY: &str = "Atkinson Hyperlegible Next";

/// The same face as the browser knows it.
pub(crate) const WEB_FAMILY: &str = "Atkinson Hyperlegible Next Variable";

/// Widest mean of a line's letters, as a share of their size; a plainer face that stands in is no wider.
pub(crate) const LETTER: f64 = 0.62;

/// Points in a millimetre.
pub(crate) const PT_PER_MM: f64 = 72.0 / 25.4;

/// The pages, ready to print.
#[derive(Debug, Serialize, ToSchema)]
pub struct LabelPages {
    /// One SVG for each page, in millimetres.
    pub pages: Vec<String>,
    /// Labels in a row.
    pub columns: usize,
    /// Rows on a page.
    pub rows: usize,
    /// Width of the paper in millimetres.
    pub paper_width_mm: f64,
    /// Height of the paper in millimetres.
    pub paper_height_mm: f64,
}

/// What one label says.
pub(crate) struct Label {
    pub(crate) title: String,
    pub(crate) lines: Vec<String>,
    pub(crate) code: QrCode,
    /// Finds the jar when the address in the code has changed.
    pub(crate) number: String,
}

pub(crate) fn title(jar: &JarRecord) -> String {
    match (jar.product, jar.thickness) {
        (Product::Whole, _) => "Whole tomatoes".to_owned(),
        (Product::Crushed, _) => "Crushed tomatoes".to_owned(),
        (Product::Juice, _) => "Tomato juice".to_owned(),
        (Product::VegetableJuice, _) => "Vegetable juice".to_owned(),
        (Product::Sauce, Some(Thickness::Thick)) => "Thick tomato sauce".to_owned(),
        (Product::Sauce, _) => "Tomato sauce".to_owned(),
        (Product::Paste, _) => "Tomato paste".to_owned(),
        (Product::Recipe, _) => jar.named.clone().unwrap_or_else(|| "By a recipe".to_owned()),
    }
}

/// What the crates of a batch were called, or else the one kind of tomato that was in them.
pub(crate) fn variety<'a>(lots: impl Iterator<Item = &'a Lot> + Clone) -> Option<String> {
    let mut names: Vec<&str> = lots.clone().filter_map(|lot| lot.name.as_deref()).collect();
    names.dedup();
    if !names.is_empty() {
        return Some(names.join(", "));
    }
    common_kind(lots.map(|lot| lot.kind))
        .filter(|kind| *kind != Kind::Mixed)
        .map(|kind| format!("{kind} tomatoes"))
}

pub(crate) fn label(
    jar: &JarRecord,
    batch: &Batch,
    variety: Option<&str>,
    household: &str,
    host: &str,
) -> Result<Label, ApiError> {
    let lifted = jar
        .lifted_at
        .ok_or_else(|| ApiError::field("jars", format!("jar {} is not out of the canner yet", jar.number)))?;
    let pack = match (jar.pack, jar.medium) {
        (Pack::Raw, _) => "raw pack",
        (Pack::Hot, _) => "hot pack",
    };
    let medium = match jar.medium {
        Some(Medium::Water) => ", in water",
        Some(Medium::Juice) => ", in juice",
        Some(Medium::None) => ", no liquid",
        None => "",
    };
    let packed = match &jar.named {
        Some(name) if jar.product != Product::Recipe => format!("{name} · {pack}{medium}"),
        _ => format!("{pack}{medium}"),
    };
    let packed = variety.into_iter().fold(packed, |line, variety| format!("{line} · {variety}"));
    // A recipe has its acid in it; what it is made by says more.
    let contents = match &batch.recipe {
        Some(recipe) => format!("by {}", recipe.source),
        None => std::iter::once(format!("with {}", jar.agent.label()))
            .chain(batch.additions.iter().flatten().map(|added| added.what.to_string()))
            .collect::<Vec<_>>()
            .join(", "),
    };
    let note = batch.note.as_deref().and_then(|note| note.lines().next()).map(str::to_owned);
    let contents = std::iter::once(contents).chain(note).collect::<Vec<_>>().join(" · ");
    let day = day_of(lifted);
    let address = format!("{host}/jar/{}", jar.id);
    let code = qr::code(&address).map_err(ApiError::Internal)?;
    Ok(Label {
        title: title(jar),
        lines: vec![
            clipped(&packed),
            clipped(&contents),
            format!("{day} · batch {} · {}", jar.code, jar.number),
            format!("best before {}", day_after_months(lifted, BEST_MONTHS)),
            household.to_owned(),
        ],
        code,
        number: format!("jar {}", jar.id),
    })
}

/// Letters of a line that can still be read on a lid.
const MOST_LETTERS: usize = 56;

/// A line that is not too long for a label.
fn clipped(line: &str) -> String {
    if line.chars().count() <= MOST_LETTERS {
        return line.to_owned();
    }
    line.chars().take(MOST_LETTERS - 1).chain(['…']).collect()
}

pub(crate) fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

/// Letter size that lets a text run over a width, at most `most`, in millimetres.
pub(crate) fn size_for(text: &str, width: f64, most: f64) -> f64 {
    #[allow(clippy::cast_precision_loss)] // a line of text
    let letters = text.chars().count().max(1) as f64;
    most.min(width / (letters * LETTER))
}

/// The QR code, in millimetres.
pub(crate) fn code_path(code: &QrCode, x: f64, y: f64, side: f64) -> String {
    #[allow(clippy::cast_precision_loss)] // a few dozen modules
    let module = side / code.width() as f64;
    format!("<path d=\"{}\" fill=\"black\"/>", qr::path(code, x, y, module))
}

pub(crate) fn text(line: &str, x: f64, y: f64, size: f64, weight: u32, anchor: &str) -> String {
    format!(
        "<text x=\"{x:.3}\" y=\"{y:.3}\" font-family=\"{WEB_FAMILY}, {FAMILY}, sans-serif\" font-size=\"{size:.3}\" \
         font-weight=\"{weight}\" text-anchor=\"{anchor}\" fill=\"black\">{}</text>",
        escaped(line)
    )
}

/// A round label: title and lines across the middle, the code below.
pub(crate) fn round(label: &Label, diameter: f64) -> String {
    let middle = diameter / 2.0;
    let mut svg = format!(
        "<circle cx=\"{middle:.3}\" cy=\"{middle:.3}\" r=\"{:.3}\" fill=\"white\" stroke=\"black\" stroke-width=\"0.3\"/>",
        middle - 0.15
    );
    let chord = |y: f64| 2.0 * (middle * middle - (y - middle).powi(2)).max(0.0).sqrt() * 0.9;
    let at = |share: f64| diameter * share;
    let mut line = |words: &str, share: f64, most: f64, weight: u32| {
        // A circle is narrower at the top of the letters than at their foot.
        let room = chord(at(share)).min(chord(at(share) - diameter * most * 0.8));
        let size = size_for(words, room, diameter * most);
        svg.push_str(&text(words, middle, at(share), size, weight, "middle"));
    };
    line(&label.lines[4], 0.17, 0.06, 400);
    line(&label.title, 0.29, 0.105, 700);
    line(&label.lines[0], 0.375, 0.068, 400);
    line(&label.lines[1], 0.45, 0.068, 400);
    line(&label.lines[2], 0.53, 0.07, 700);
    line(&label.lines[3], 0.605, 0.065, 400);
    let side = diameter * 0.27;
    svg.push_str(&code_path(&label.code, middle - side / 2.0, diameter * 0.65, side));
    // Beside the code, where the circle still has room.
    let (x, room) = (middle + side / 2.0 + diameter * 0.015, diameter * 0.2);
    let size = size_for(&label.number, room, diameter * 0.05);
    svg.push_str(&text(&label.number, x, diameter * 0.8, size, 700, "start"));
    svg
}

/// A rectangular label: the words on the left, the code on the right.
pub(crate) fn rectangle(label: &Label, width: f64, height: f64) -> String {
    let mut svg = format!(
        "<rect x=\"0.15\" y=\"0.15\" width=\"{:.3}\" height=\"{:.3}\" rx=\"1.5\" fill=\"white\" stroke=\"black\" stroke-width=\"0.3\"/>",
        width - 0.3,
        height - 0.3
    );
    let pad = (width.min(height) * 0.08).max(1.5);
    let unit = (height - 2.0 * pad) / 6.6;
    let under = unit * 1.1;
    let side = (height - 2.0 * pad - under).min(width * 0.36);
    let room = width - side - 3.0 * pad;
    let mut y = pad + unit * 1.2;
    svg.push_str(&text(&label.title, pad, y, size_for(&label.title, room, unit * 1.45), 700, "start"));
    for (place, line) in label.lines.iter().enumerate() {
        y += unit * 1.06;
        let weight = if place == 2 { 700 } else { 400 };
        svg.push_str(&text(line, pad, y, size_for(line, room, unit * 0.92), weight, "start"));
    }
    let top = (height - side - under) / 2.0;
    svg.push_str(&code_path(&label.code, width - pad - side, top, side));
    let size = size_for(&label.number, side, unit * 0.92);
    svg.push_str(&text(&label.number, width - pad - side / 2.0, top + side + under, size, 700, "middle"));
    svg
}

pub(crate) fn page(size: (f64, f64), labels: &[(Spot, String)]) -> String {
    let (width, height) = size;
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\">"
    );
    for (spot, label) in labels {
        let (x, y) = (spot.x.get::<millimeter>(), spot.y.get::<millimeter>());
        let _ = write!(svg, "<g transform=\"translate({x:.3} {y:.3})\" data-label=\"\">{label}</g>");
    }
    svg.push_str("</svg>");
    svg
}

pub(crate) static FONTS: LazyLock<Arc<usvg::fontdb::Database>> = LazyLock::new(|| {
    let mut fonts = usvg::fontdb::Database::new();
    fonts.load_font_data(include_bytes!("../../fonts/atkinson-hyperlegible-next-400.ttf").to_vec());
    fonts.load_font_data(include_bytes!("../../fonts/atkinson-hyperlegible-next-700.ttf").to_vec());
    Arc::new(fonts)
});

pub(crate) fn pdf(pages: &LabelPages) -> Result<Vec<u8>, String> {
    let mut document = krilla::Document::new();
    let options =
        usvg::Options { fontdb: FONTS.clone(), font_family: FAMILY.to_owned(), ..usvg::Options::default() };
    #[allow(clippy::cast_possible_truncation)] // a sheet of paper in points
    let points = |mm: f64| (mm * PT_PER_MM) as f32;
    let (width, height) = (points(pages.paper_width_mm), points(pages.paper_height_mm));
    let size = Size::from_wh(width, height).ok_or("the paper has no size")?;
    for svg in &pages.pages {
        let tree = usvg::Tree::from_str(svg, &options).map_err(|error| error.to_string())?;
        let settings = PageSettings::from_wh(width, height).ok_or("the paper has no size")?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface.draw_svg(&tree, size, SvgSettings::default());
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|error| format!("{error:?}"))
}
