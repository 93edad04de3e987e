//! Labels drawn once, in millimetres, for the screen's SVG and for the PDF alike.

use bodega_core::shelf::label_sheet::Spot;
use bodega_core::shelf::label_words::{best_line, cold_line, open_words, recipe_acid};
use bodega_core::towel::seal::{BEST_MONTHS, fridge_days, fridge_until};
use bodega_model::crates::fruit::{Kind, common_kind};
use bodega_model::judge::standing::JarStanding;
use bodega_model::plan::making::Thickness;
use bodega_model::records::batch::Batch;
use bodega_model::records::jar::JarRecord;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::{Medium, Pack, Product};
use bodega_model::towel::seal::Rescue;
use qrcode::QrCode;

use crate::clock::{day_after_months, day_of};
use crate::problem::ApiError;
use crate::qr;

/// White around the sheet that a printer cannot reach.
pub(crate) const MARGIN_MM: f64 = 5.0;

/// Widest mean of a line's letters, as a share of their size; a plainer face that stands in is no wider.
pub(crate) const LETTER: f64 = 0.62;

/// Where a line of words is held.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Anchor {
    /// At its beginning.
    Start,
    /// In its middle.
    Middle,
}

/// One thing on a label, in millimetres from its upper left corner.
pub(crate) enum Mark {
    /// The edge of a round label.
    Circle { x: f64, y: f64, r: f64 },
    /// The edge of a rectangular one.
    Rectangle { x: f64, y: f64, width: f64, height: f64, corner: f64 },
    /// A code as a square of such a side.
    Code { code: QrCode, x: f64, y: f64, side: f64 },
    /// A line of words; `y` is where the letters stand.
    Words { words: String, x: f64, y: f64, size: f64, bold: bool, anchor: Anchor },
}

/// Width of an edge.
pub(crate) const EDGE_MM: f64 = 0.3;
/// Corner of a rectangular label.
const CORNER_MM: f64 = 1.5;

/// A label where it lies on its page.
pub(crate) type Placed = (Spot, Vec<Mark>);

/// A sheet with what lies on its pages.
pub(crate) struct Drawing {
    pub(crate) pages: Vec<Vec<Placed>>,
    pub(crate) columns: usize,
    pub(crate) rows: usize,
    /// Width and height of the paper.
    pub(crate) paper: (f64, f64),
}

/// What one label says.
pub(crate) struct Label {
    pub(crate) title: String,
    /// From packed to best before.
    pub(crate) lines: Vec<Line>,
    pub(crate) household: String,
    pub(crate) code: QrCode,
    /// Finds the jar when the address in the code has changed.
    pub(crate) number: String,
}

/// One line of a label.
pub(crate) struct Line {
    words: String,
    /// It is looked for.
    bold: bool,
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

/// A jar with what its label says of it.
pub(crate) struct Labelled {
    pub(crate) jar: JarRecord,
    pub(crate) batch: Batch,
    pub(crate) variety: Option<String>,
    /// Whether the recipe that it is made by has an acid in the pot.
    pub(crate) brings_its_acid: bool,
    pub(crate) standing: JarStanding,
}

pub(crate) fn label(one: &Labelled, kitchen: &Kitchen, host: &str) -> Result<Label, ApiError> {
    let Labelled { jar, batch, standing, .. } = one;
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
    let recipe = batch.recipe.as_ref();
    let acid = recipe.and_then(|recipe| recipe_acid(recipe, jar.size, one.brings_its_acid));
    let packed =
        std::iter::once(packed).chain(acid).chain(one.variety.clone()).collect::<Vec<_>>().join(" · ");
    let contents = match recipe {
        Some(recipe) => format!("by {}", recipe.source),
        None => std::iter::once(format!("with {}", jar.agent.label()))
            .chain(batch.additions.iter().flatten().map(|added| added.called().to_owned()))
            .collect::<Vec<_>>()
            .join(", "),
    };
    let note = batch.note.as_deref().and_then(|note| note.lines().next()).map(str::to_owned);
    let contents =
        std::iter::once(contents).chain(note).chain(open_words(standing)).collect::<Vec<_>>().join(" · ");
    let day = day_of(lifted);
    let eat_by = jar.rescued_at.filter(|_| jar.rescue == Some(Rescue::Refrigerator));
    let best = if jar.is_cold() {
        cold_line(eat_by.map(|at| day_of(fridge_until(at, fridge_days(jar.liquid_lost)))))
    } else {
        best_line(standing, day_after_months(lifted, BEST_MONTHS))
    };
    let process = batch.printed(jar.size, kitchen.units);
    let plain = |words: String| Line { words: clipped(&words), bold: false };
    let code_line = Line { words: format!("{day} · batch {} · {}", jar.code, jar.number), bold: true };
    let lines = std::iter::once(packed).chain(process).chain([contents]).map(plain);
    let lines = lines.chain([code_line, plain(best)]).collect();
    let household = kitchen.name.clone();
    let address = format!("{host}/jar/{}", jar.id);
    let code = qr::code(&address).map_err(ApiError::Internal)?;
    Ok(Label { title: title(jar), lines, household, code, number: format!("jar {}", jar.id) })
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

/// Letter size that lets a text run over a width, at most `most`, in millimetres.
fn size_for(text: &str, width: f64, most: f64) -> f64 {
    #[allow(clippy::cast_precision_loss)] // a line of text
    let letters = text.chars().count().max(1) as f64;
    most.min(width / (letters * LETTER))
}

/// Share of a round label's height that the lines between its title and its code have.
const ROUND_LINES: f64 = 0.305;

/// A round label: title and lines across the middle, the code below.
pub(crate) fn round(label: Label, diameter: f64) -> Vec<Mark> {
    let middle = diameter / 2.0;
    let mut marks = vec![Mark::Circle { x: middle, y: middle, r: middle - EDGE_MM / 2.0 }];
    let chord = |y: f64| 2.0 * (middle * middle - (y - middle).powi(2)).max(0.0).sqrt() * 0.9;
    let at = |share: f64| diameter * share;
    let mut line = |words: &str, share: f64, most: f64, bold: bool| {
        // A circle is narrower at the top of the letters than at their foot.
        let room = chord(at(share)).min(chord(at(share) - diameter * most * 0.8));
        let size = size_for(words, room, diameter * most);
        let (words, y) = (words.to_owned(), at(share));
        marks.push(Mark::Words { words, x: middle, y, size, bold, anchor: Anchor::Middle });
    };
    line(&label.household, 0.17, 0.06, false);
    line(&label.title, 0.29, 0.105, true);
    #[allow(clippy::cast_precision_loss)] // a handful of lines
    let step = ROUND_LINES / label.lines.len() as f64;
    for (place, words) in label.lines.iter().enumerate() {
        #[allow(clippy::cast_precision_loss)] // a handful of lines
        let share = 0.3 + step * (place + 1) as f64;
        line(&words.words, share, step * 0.9, words.bold);
    }
    let side = diameter * 0.27;
    marks.push(Mark::Code { code: label.code, x: middle - side / 2.0, y: diameter * 0.65, side });
    // Beside the code, where the circle still has room.
    let (x, room) = (middle + side / 2.0 + diameter * 0.015, diameter * 0.2);
    let size = size_for(&label.number, room, diameter * 0.05);
    let (words, y) = (label.number, diameter * 0.8);
    marks.push(Mark::Words { words, x, y, size, bold: true, anchor: Anchor::Start });
    marks
}

/// A rectangular label: the words on the left, the code on the right.
pub(crate) fn rectangle(label: Label, width: f64, height: f64) -> Vec<Mark> {
    let half = EDGE_MM / 2.0;
    let (inner, high) = (width - EDGE_MM, height - EDGE_MM);
    let mut marks = vec![Mark::Rectangle { x: half, y: half, width: inner, height: high, corner: CORNER_MM }];
    let pad = (width.min(height) * 0.08).max(1.5);
    #[allow(clippy::cast_precision_loss)] // a handful of lines
    let unit = (height - 2.0 * pad) / (1.3 + 1.06 * (label.lines.len() + 1) as f64);
    let under = unit * 1.1;
    let side = (height - 2.0 * pad - under).min(width * 0.36);
    let room = width - side - 3.0 * pad;
    let mut y = pad + unit * 1.2;
    let size = size_for(&label.title, room, unit * 1.45);
    marks.push(Mark::Words { words: label.title, x: pad, y, size, bold: true, anchor: Anchor::Start });
    for Line { words, bold } in label.lines.into_iter().chain([Line { words: label.household, bold: false }])
    {
        y += unit * 1.06;
        let size = size_for(&words, room, unit * 0.92);
        marks.push(Mark::Words { words, x: pad, y, size, bold, anchor: Anchor::Start });
    }
    let (left, top) = (width - pad - side, (height - side - under) / 2.0);
    marks.push(Mark::Code { code: label.code, x: left, y: top, side });
    let size = size_for(&label.number, side, unit * 0.92);
    let (x, y) = (left + side / 2.0, top + side + under);
    marks.push(Mark::Words { words: label.number, x, y, size, bold: true, anchor: Anchor::Middle });
    marks
}
