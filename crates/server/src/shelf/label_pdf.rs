//! The same labels as PDF, to the millimetre, with their letters in it (ISO 32000, from memory).

use std::collections::BTreeMap;
use std::io::Write;

use deunicode::deunicode_char;
use flate2::Compression;
use flate2::write::ZlibEncoder;
use pdf_writer::types::{CidFontType, FontFlags, SystemInfo, UnicodeCmap};
use pdf_writer::{Content, Filter, Finish, Name, Pdf, Rect, Ref, Str};
use qrcode::{Color, QrCode};
use ttf_parser::{Face, GlyphId};
use uom::si::length::millimeter;

use crate::shelf::label_drawing::{Anchor, Drawing, EDGE_MM, Mark, Placed};

/// Points in a millimetre.
const PT_PER_MM: f64 = 72.0 / 25.4;
/// How far the handles of a quarter circle reach, as a share of its radius.
const QUARTER: f64 = 0.552_284_75;
/// Parts of its size that a PDF counts a letter's width in.
const EM: f64 = 1000.0;

const PLAIN: &[u8] = include_bytes!("../../fonts/atkinson-hyperlegible-next-400.ttf");
const BOLD: &[u8] = include_bytes!("../../fonts/atkinson-hyperlegible-next-700.ttf");

/// How letters are numbered in a font's file, and in no other way.
const SYSTEM: SystemInfo<'_> =
    SystemInfo { registry: Str(b"Adobe"), ordering: Str(b"Identity"), supplement: 0 };

/// A typeface with the letters of it that were used.
struct Letters {
    name: &'static str,
    file: &'static [u8],
    face: Face<'static>,
    used: BTreeMap<u16, (char, f64)>,
}

impl Letters {
    fn of(name: &'static str, file: &'static [u8]) -> Result<Self, String> {
        let face = Face::parse(file, 0).map_err(|error| error.to_string())?;
        Ok(Self { name, file, face, used: BTreeMap::new() })
    }

    fn scaled(&self, units: f64) -> f64 {
        units * EM / f64::from(self.face.units_per_em())
    }

    /// The letters of a text by their numbers in the file, two bytes each, and how wide it is at a size of one. What the face
    /// has no letter for is written in plain ones.
    fn set(&mut self, text: &str) -> (Vec<u8>, f64) {
        let plain = |letter: char| match self.face.glyph_index(letter) {
            Some(_) => vec![letter],
            None => deunicode_char(letter).unwrap_or("?").chars().collect(),
        };
        let letters: Vec<char> = text.chars().flat_map(plain).collect();
        let mut bytes = Vec::new();
        let mut wide = 0.0;
        for letter in letters {
            let glyph = self.face.glyph_index(letter).unwrap_or(GlyphId(0));
            let width = self.scaled(f64::from(self.face.glyph_hor_advance(glyph).unwrap_or(0)));
            self.used.insert(glyph.0, (letter, width));
            bytes.extend(glyph.0.to_be_bytes());
            wide += width / EM;
        }
        (bytes, wide)
    }

    /// Writes the typeface under a number and the four that follow it.
    fn write(&self, pdf: &mut Pdf, own: Ref) {
        let [letters, about, file, map] = [1, 2, 3, 4].map(|place| Ref::new(own.get() + place));
        let name = Name(self.name.as_bytes());
        pdf.type0_font(own)
            .base_font(name)
            .encoding_predefined(Name(b"Identity-H"))
            .descendant_font(letters)
            .to_unicode(map);
        let mut font = pdf.cid_font(letters);
        font.subtype(CidFontType::Type2).base_font(name).system_info(SYSTEM).font_descriptor(about);
        font.cid_to_gid_map_predefined(Name(b"Identity"));
        let mut widths = font.widths();
        for (glyph, (_, width)) in &self.used {
            widths.consecutive(*glyph, [short(*width)]);
        }
        widths.finish();
        font.finish();
        let bounds = self.face.global_bounding_box();
        let edge = |units: i16| short(self.scaled(f64::from(units)));
        pdf.font_descriptor(about)
            .name(name)
            .flags(FontFlags::NON_SYMBOLIC)
            .bbox(Rect::new(edge(bounds.x_min), edge(bounds.y_min), edge(bounds.x_max), edge(bounds.y_max)))
            .italic_angle(0.0)
            .ascent(edge(self.face.ascender()))
            .descent(edge(self.face.descender()))
            .cap_height(edge(self.face.capital_height().unwrap_or_else(|| self.face.ascender())))
            .stem_v(80.0)
            .font_file2(file);
        stream(pdf, file, self.file);
        let mut cmap = UnicodeCmap::new(name, SYSTEM);
        for (glyph, (letter, _)) in &self.used {
            cmap.pair(*glyph, *letter);
        }
        pdf.cmap(map, cmap.finish().as_slice());
    }
}

#[allow(clippy::cast_possible_truncation)] // a sheet of paper
const fn short(number: f64) -> f32 {
    number as f32
}

fn stream(pdf: &mut Pdf, own: Ref, bytes: &[u8]) {
    let mut packed = ZlibEncoder::new(Vec::new(), Compression::default());
    let packed =
        packed.write_all(bytes).and_then(|()| packed.finish()).expect("memory takes what is written");
    pdf.stream(own, &packed).filter(Filter::FlateDecode);
}

/// An outline that is filled white and drawn black: straight sides with quarter circles at its corners.
fn edge(content: &mut Content, (x, y): (f64, f64), (width, height): (f64, f64), corner: f64) {
    let reach = corner * (1.0 - QUARTER);
    let at = |dx: f64, dy: f64| (short(x + dx), short(y + dy));
    let start = at(corner, 0.0);
    content.move_to(start.0, start.1);
    for (straight, first, second, end) in [
        (at(width - corner, 0.0), at(width - reach, 0.0), at(width, reach), at(width, corner)),
        (
            at(width, height - corner),
            at(width, height - reach),
            at(width - reach, height),
            at(width - corner, height),
        ),
        (at(corner, height), at(reach, height), at(0.0, height - reach), at(0.0, height - corner)),
        (at(0.0, corner), at(0.0, reach), at(reach, 0.0), start),
    ] {
        content.line_to(straight.0, straight.1);
        content.cubic_to(first.0, first.1, second.0, second.1, end.0, end.1);
    }
    content.close_path();
    content.set_fill_gray(1.0);
    content.fill_nonzero_and_stroke();
    content.set_fill_gray(0.0);
}

fn code(content: &mut Content, code: &QrCode, (x, y): (f64, f64), side: f64) {
    let width = code.width();
    #[allow(clippy::cast_precision_loss)] // a few dozen modules
    let module = side / width as f64;
    for (place, color) in code.to_colors().into_iter().enumerate() {
        if color == Color::Dark {
            #[allow(clippy::cast_precision_loss)] // a few dozen modules
            let (column, row) = ((place % width) as f64, (place / width) as f64);
            content.rect(short(x + column * module), short(y + row * module), short(module), short(module));
        }
    }
    content.fill_nonzero();
}

/// Draws a label whose corner stands at a place.
fn draw(content: &mut Content, marks: &[Mark], (left, top): (f64, f64), faces: &mut [Letters; 2]) {
    for mark in marks {
        match mark {
            Mark::Circle { x, y, r } => {
                edge(content, (left + x - r, top + y - r), (2.0 * r, 2.0 * r), *r);
            }
            Mark::Rectangle { x, y, width, height, corner } => {
                edge(content, (left + x, top + y), (*width, *height), *corner);
            }
            Mark::Code { code: qr, x, y, side } => code(content, qr, (left + x, top + y), *side),
            Mark::Words { words, x, y, size, bold, anchor } => {
                let face = &mut faces[usize::from(*bold)];
                let (letters, wide) = face.set(words);
                let before = if *anchor == Anchor::Middle { wide * size / 2.0 } else { 0.0 };
                content.begin_text();
                content.set_font(Name(face.name.as_bytes()), 1.0);
                // The page counts downwards and letters stand upright.
                let (x, y, size) = (short(left + x - before), short(top + y), short(*size));
                content.set_text_matrix([size, 0.0, 0.0, -size, x, y]);
                content.show(Str(&letters));
                content.end_text();
            }
        }
    }
}

fn page((_, height): (f64, f64), labels: &[Placed], faces: &mut [Letters; 2]) -> Vec<u8> {
    let mut content = Content::new();
    let scale = short(PT_PER_MM);
    content.transform([scale, 0.0, 0.0, -scale, 0.0, short(height * PT_PER_MM)]);
    content.set_line_width(short(EDGE_MM));
    for (spot, marks) in labels {
        draw(&mut content, marks, (spot.x.get::<millimeter>(), spot.y.get::<millimeter>()), faces);
    }
    content.finish().to_vec()
}

/// The pages as one document.
///
/// # Errors
/// When a typeface cannot be read.
pub(crate) fn pdf(drawing: &Drawing) -> Result<Vec<u8>, String> {
    let mut faces = [Letters::of("AtkinsonPlain", PLAIN)?, Letters::of("AtkinsonBold", BOLD)?];
    let contents: Vec<Vec<u8>> =
        drawing.pages.iter().map(|labels| page(drawing.paper, labels, &mut faces)).collect();
    let mut pdf = Pdf::new();
    let [catalog, tree, plain, bold] = [1, 2, 3, 8].map(Ref::new);
    /// Two numbers for every page come after those of the typefaces.
    const FIRST: i32 = 13;
    let pages: Vec<(Ref, Ref)> =
        (FIRST..).step_by(2).map(|own| (Ref::new(own), Ref::new(own + 1))).take(contents.len()).collect();
    pdf.catalog(catalog).pages(tree);
    pdf.pages(tree)
        .kids(pages.iter().map(|(own, _)| *own))
        .count(i32::try_from(pages.len()).unwrap_or(i32::MAX));
    let [width, height] = [drawing.paper.0, drawing.paper.1].map(|mm| short(mm * PT_PER_MM));
    for ((own, content), bytes) in pages.iter().zip(&contents) {
        let mut page = pdf.page(*own);
        page.parent(tree).media_box(Rect::new(0.0, 0.0, width, height)).contents(*content);
        page.resources()
            .fonts()
            .pair(Name(faces[0].name.as_bytes()), plain)
            .pair(Name(faces[1].name.as_bytes()), bold);
        page.finish();
        stream(&mut pdf, *content, bytes);
    }
    for (face, own) in faces.iter().zip([plain, bold]) {
        face.write(&mut pdf, own);
    }
    Ok(pdf.finish())
}
