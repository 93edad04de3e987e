//! Where labels lie on a sheet of paper, to the millimetre.

use bodega_model::measures::units::{Length, millimetres};
use bodega_model::measures::vocabulary::vocabulary;
use uom::si::length::millimeter;

vocabulary! {
    /// Paper in the printer.
    "paper", Paper {
        /// 210 x 297 mm (ISO 216).
        A4 = "a4", "210 × 297 mm";
        /// 8½ x 11 in (ANSI A).
        Letter = "letter", "216 × 279 mm";
    }
}

impl Paper {
    /// Width and height.
    #[must_use]
    pub fn size(self) -> (Length, Length) {
        match self {
            Self::A4 => (millimetres(210.0), millimetres(297.0)),
            Self::Letter => (millimetres(215.9), millimetres(279.4)),
        }
    }
}

vocabulary! {
    /// Outline of a label.
    "shape", Shape {
        /// Round, for a lid.
        Round = "round", "round, for lids";
        /// Rectangular, for the glass.
        Rectangle = "rectangle", "rectangular, for the glass";
    }
}

/// A label and the paper it is printed on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sheet {
    /// The paper.
    pub paper: Paper,
    /// Width of a label; its diameter when it is round.
    pub width: Length,
    /// Height of a label.
    pub height: Length,
    /// From one label to the next.
    pub gap: Length,
    /// Least white around the sheet.
    pub margin: Length,
}

/// No label fits on the paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("no label of this size fits on the paper with its margins; make it smaller")]
pub struct NoneFits;

/// Where one label lies: its page from 0, and its upper left corner.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spot {
    /// Page, from 0.
    pub page: usize,
    /// From the left edge.
    pub x: Length,
    /// From the upper edge.
    pub y: Length,
}

impl Sheet {
    fn fit(&self, paper: Length, label: Length) -> usize {
        let room = (paper - self.margin * 2.0 + self.gap).get::<millimeter>();
        let pitch = (label + self.gap).get::<millimeter>();
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // a few labels
        let count = (room / pitch + 1e-9).floor().max(0.0) as usize;
        count
    }

    /// Columns and rows of a full sheet.
    ///
    /// # Errors
    /// [`NoneFits`].
    pub fn grid(&self) -> Result<(usize, usize), NoneFits> {
        let (wide, high) = self.paper.size();
        let grid = (self.fit(wide, self.width), self.fit(high, self.height));
        if grid.0 == 0 || grid.1 == 0 { Err(NoneFits) } else { Ok(grid) }
    }

    /// Spots of so many labels, the first at a position of a part-used sheet, counted from 1 by rows. The grid lies in the
    /// middle of the paper.
    ///
    /// # Errors
    /// [`NoneFits`].
    pub fn spots(&self, count: usize, start: usize) -> Result<Vec<Spot>, NoneFits> {
        let (columns, rows) = self.grid()?;
        let (wide, high) = self.paper.size();
        #[allow(clippy::cast_precision_loss)] // a few labels
        let whole = |label: Length, count: usize| label * count as f64 + self.gap * (count - 1) as f64;
        let left = (wide - whole(self.width, columns)) / 2.0;
        let top = (high - whole(self.height, rows)) / 2.0;
        let first = (start.max(1) - 1) % (columns * rows);
        let spot = |place: usize| {
            let on_page = place % (columns * rows);
            #[allow(clippy::cast_precision_loss)] // a few labels
            let (column, row) = ((on_page % columns) as f64, (on_page / columns) as f64);
            Spot {
                page: place / (columns * rows),
                x: left + (self.width + self.gap) * column,
                y: top + (self.height + self.gap) * row,
            }
        };
        Ok((first..first + count).map(spot).collect())
    }
}

#[cfg(test)]
mod tests {
    use uom::si::length::millimeter;

    use super::{NoneFits, Paper, Sheet};
    use bodega_model::measures::units::millimetres;

    fn sheet(paper: Paper, width: f64, height: f64, gap: f64) -> Sheet {
        Sheet {
            paper,
            width: millimetres(width),
            height: millimetres(height),
            gap: millimetres(gap),
            margin: millimetres(5.0),
        }
    }

    #[test]
    fn a_sheet_holds_what_fits_between_its_margins_and_lies_in_the_middle() {
        let round = sheet(Paper::A4, 60.0, 60.0, 5.0);
        assert_eq!(round.grid(), Ok((3, 4)));
        let spots = round.spots(13, 1).unwrap();
        // Three of 60 mm and two gaps of 5 mm are 190 mm on 210; four and three gaps are 255 mm on 297.
        assert!((spots[0].x.get::<millimeter>() - 10.0).abs() < 1e-9);
        assert!((spots[0].y.get::<millimeter>() - 21.0).abs() < 1e-9);
        assert!((spots[4].x.get::<millimeter>() - 75.0).abs() < 1e-9, "the second of the second row");
        assert_eq!((spots[11].page, spots[12].page), (0, 1));
        assert_eq!(sheet(Paper::Letter, 66.0, 25.0, 3.0).grid(), Ok((3, 9)));
    }

    #[test]
    fn a_part_used_sheet_is_used_from_where_it_is_free() {
        let round = sheet(Paper::A4, 60.0, 60.0, 5.0);
        let spots = round.spots(2, 12).unwrap();
        assert_eq!((spots[0].page, spots[1].page), (0, 1), "the last spot, then a new sheet");
        assert_eq!(spots[0], round.spots(12, 1).unwrap()[11]);
    }

    #[test]
    fn a_label_larger_than_the_paper_is_refused() {
        assert_eq!(sheet(Paper::A4, 250.0, 50.0, 3.0).spots(1, 1), Err(NoneFits));
    }
}
