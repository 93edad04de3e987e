//! Labels from the record: SVG by the page, and PDF.

use std::fmt::Write;
use std::sync::{Arc, LazyLock};

use actix_web::{HttpRequest, HttpResponse, get, web};
use bodega_core::label_sheet::{Paper, Shape, Sheet, Spot};
use bodega_core::limits::{LABEL_GAP, LABEL_SIDE, LABEL_START};
use bodega_core::process::{Medium, Pack, Product};
use bodega_core::seal::BEST_MONTHS;
use bodega_core::units::millimetres;
use bodega_core::yields::Thickness;
use bodega_store::JarRecord;
use krilla::geom::Size;
use krilla::page::PageSettings;
use krilla_svg::{SurfaceExt, SvgSettings};
use qrcode::{Color, EcLevel, QrCode};
use serde::{Deserialize, Serialize};
use uom::si::length::millimeter;
use utoipa::{IntoParams, ToSchema};

use crate::app::{Shared, off_thread, read};
use crate::clock::{day_after_months, day_of};
use crate::problem::{ApiError, NameField, Problem};

/// White around the sheet that a printer cannot reach.
const MARGIN_MM: f64 = 5.0;
/// Typeface of the labels; it ships with the program.
const FAMILY: &str = "Atkinson Hyperlegible Next";
/// The same face as the browser knows it.
const WEB_FAMILY: &str = "Atkinson Hyperlegible Next Variable";
/// Widest mean of a line's letters, as a share of their size; a plainer face that stands in is no wider.
const LETTER: f64 = 0.62;
/// Points in a millimetre.
const PT_PER_MM: f64 = 72.0 / 25.4;

/// What to print.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct LabelQuery {
    /// Numbers of the jars' records, separated by commas.
    pub jars: String,
    /// Outline.
    pub shape: Shape,
    /// Paper.
    pub paper: Paper,
    /// Width in millimetres, 25 to 150; the diameter of a round one.
    pub width_mm: f64,
    /// Height in millimetres, 25 to 150; of a round one the same as its width.
    pub height_mm: Option<f64>,
    /// From one label to the next in millimetres, 0 to 30.
    #[serde(default)]
    pub gap_mm: f64,
    /// Position of the first label on a part-used sheet, from 1 by rows.
    pub start: Option<u32>,
}

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
struct Label {
    title: String,
    lines: Vec<String>,
    code: QrCode,
}

fn title(jar: &JarRecord) -> String {
    match (jar.product, jar.thickness) {
        (Product::Whole, _) => "Whole tomatoes".to_owned(),
        (Product::Crushed, _) => "Crushed tomatoes".to_owned(),
        (Product::Juice, _) => "Tomato juice".to_owned(),
        (Product::VegetableJuice, _) => "Vegetable juice".to_owned(),
        (Product::Sauce, Some(Thickness::Thick)) => "Thick tomato sauce".to_owned(),
        (Product::Sauce, _) => "Tomato sauce".to_owned(),
        (Product::Paste, _) => "Tomato paste".to_owned(),
    }
}

fn label(jar: &JarRecord, household: &str, host: &str) -> Result<Label, ApiError> {
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
    let day = day_of(lifted);
    let address = format!("{host}/jar/{}", jar.id);
    let code = QrCode::with_error_correction_level(address.as_bytes(), EcLevel::M)
        .map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(Label {
        title: title(jar),
        lines: vec![
            format!("{pack}{medium}"),
            format!("with {}", jar.agent.label()),
            format!("{day} · batch {} · {}", jar.code, jar.number),
            format!("best before {}", day_after_months(lifted, BEST_MONTHS)),
            household.to_owned(),
        ],
        code,
    })
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

/// Letter size that lets a text run over a width, at most `most`, in millimetres.
fn size_for(text: &str, width: f64, most: f64) -> f64 {
    #[allow(clippy::cast_precision_loss)] // a line of text
    let letters = text.chars().count().max(1) as f64;
    most.min(width / (letters * LETTER))
}

/// The QR code as one path, in millimetres.
fn code_path(code: &QrCode, x: f64, y: f64, side: f64) -> String {
    let width = code.width();
    #[allow(clippy::cast_precision_loss)] // a few dozen modules
    let module = side / width as f64;
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
    format!("<path d=\"{path}\" fill=\"black\"/>")
}

fn text(line: &str, x: f64, y: f64, size: f64, weight: u32, anchor: &str) -> String {
    format!(
        "<text x=\"{x:.3}\" y=\"{y:.3}\" font-family=\"{WEB_FAMILY}, {FAMILY}, sans-serif\" font-size=\"{size:.3}\" \
         font-weight=\"{weight}\" text-anchor=\"{anchor}\" fill=\"black\">{}</text>",
        escaped(line)
    )
}

/// A round label: title and lines across the middle, the code below.
fn round(label: &Label, diameter: f64) -> String {
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
    svg
}

/// A rectangular label: the words on the left, the code on the right.
fn rectangle(label: &Label, width: f64, height: f64) -> String {
    let mut svg = format!(
        "<rect x=\"0.15\" y=\"0.15\" width=\"{:.3}\" height=\"{:.3}\" rx=\"1.5\" fill=\"white\" stroke=\"black\" stroke-width=\"0.3\"/>",
        width - 0.3,
        height - 0.3
    );
    let pad = (width.min(height) * 0.08).max(1.5);
    let side = (height - 2.0 * pad).min(width * 0.36);
    let room = width - side - 3.0 * pad;
    let unit = (height - 2.0 * pad) / 6.6;
    let mut y = pad + unit * 1.2;
    svg.push_str(&text(&label.title, pad, y, size_for(&label.title, room, unit * 1.45), 700, "start"));
    for (place, line) in label.lines.iter().enumerate() {
        y += unit * 1.06;
        let weight = if place == 2 { 700 } else { 400 };
        svg.push_str(&text(line, pad, y, size_for(line, room, unit * 0.92), weight, "start"));
    }
    svg.push_str(&code_path(&label.code, width - pad - side, (height - side) / 2.0, side));
    svg
}

fn page(size: (f64, f64), labels: &[(Spot, String)]) -> String {
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

/// Pages of a question, drawn.
async fn drawn(shared: &web::Data<Shared>, query: &LabelQuery, host: &str) -> Result<LabelPages, ApiError> {
    let width = LABEL_SIDE.check(query.width_mm).named("width_mm")?;
    let height = match query.shape {
        Shape::Round => width,
        Shape::Rectangle => LABEL_SIDE.check(query.height_mm.unwrap_or(width)).named("height_mm")?,
    };
    let start = LABEL_START.check(f64::from(query.start.unwrap_or(1))).named("start")?;
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // checked just above
    let start = start as usize;
    let sheet = Sheet {
        paper: query.paper,
        width: millimetres(width),
        height: millimetres(height),
        gap: millimetres(LABEL_GAP.check(query.gap_mm).named("gap_mm")?),
        margin: millimetres(MARGIN_MM),
    };
    let ids = query
        .jars
        .split(',')
        .map(|id| id.trim().parse::<i64>())
        .collect::<Result<Vec<_>, _>>()
        .map_err(|_| ApiError::field("jars", "give the jars' numbers, separated by commas"))?;
    let (kitchen, jars) = read(shared, move |shared| {
        let jars = ids.iter().map(|id| shared.store.jar(*id)).collect::<Result<Vec<_>, _>>()?;
        Ok((shared.store.kitchen()?, jars))
    })
    .await?;
    let (columns, rows) = sheet.grid().map_err(|error| ApiError::field("width_mm", error))?;
    let spots = sheet.spots(jars.len(), start).map_err(|error| ApiError::field("width_mm", error))?;
    let mut pages: Vec<Vec<(Spot, String)>> = Vec::new();
    for (jar, spot) in jars.iter().zip(spots) {
        let label = label(jar, &kitchen.name, host)?;
        let svg = match query.shape {
            Shape::Round => round(&label, width),
            Shape::Rectangle => rectangle(&label, width, height),
        };
        if pages.len() <= spot.page {
            pages.push(Vec::new());
        }
        if let Some(page) = pages.last_mut() {
            page.push((spot, svg));
        }
    }
    let (wide, high) = query.paper.size();
    let size = (wide.get::<millimeter>(), high.get::<millimeter>());
    Ok(LabelPages {
        pages: pages.iter().map(|labels| page(size, labels)).collect(),
        columns,
        rows,
        paper_width_mm: size.0,
        paper_height_mm: size.1,
    })
}

fn host(request: &HttpRequest) -> String {
    let connection = request.connection_info();
    format!("{}://{}", connection.scheme(), connection.host())
}

/// Labels of some jars, one SVG for each page.
#[utoipa::path(params(LabelQuery),
    responses((status = 200, body = LabelPages), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/labels")]
pub async fn get_labels(
    shared: web::Data<Shared>,
    request: HttpRequest,
    query: web::Query<LabelQuery>,
) -> Result<web::Json<LabelPages>, ApiError> {
    Ok(web::Json(drawn(&shared, &query, &host(&request)).await?))
}

static FONTS: LazyLock<Arc<usvg::fontdb::Database>> = LazyLock::new(|| {
    let mut fonts = usvg::fontdb::Database::new();
    fonts.load_font_data(include_bytes!("../../fonts/atkinson-hyperlegible-next-400.ttf").to_vec());
    fonts.load_font_data(include_bytes!("../../fonts/atkinson-hyperlegible-next-700.ttf").to_vec());
    Arc::new(fonts)
});

fn pdf(pages: &LabelPages) -> Result<Vec<u8>, String> {
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

/// The same labels as one PDF, to the millimetre.
#[utoipa::path(params(LabelQuery),
    responses((status = 200, content_type = "application/pdf"), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
#[get("/api/labels.pdf")]
pub async fn get_labels_pdf(
    shared: web::Data<Shared>,
    request: HttpRequest,
    query: web::Query<LabelQuery>,
) -> Result<HttpResponse, ApiError> {
    let pages = drawn(&shared, &query, &host(&request)).await?;
    let bytes = off_thread(move || pdf(&pages)).await?.map_err(ApiError::Internal)?;
    Ok(HttpResponse::Ok()
        .content_type("application/pdf")
        .insert_header(("Content-Disposition", "inline; filename=\"labels.pdf\""))
        .body(bytes))
}
