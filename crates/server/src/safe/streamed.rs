//! Files that are longer than memory: written by a thread of their own while the browser takes them.

use std::io::{BufWriter, Error, ErrorKind, Result as Written, Write};

use actix_web::{HttpResponse, web};
use bodega_store::StoreError;
use futures_util::stream;
use serde::Serialize;
use tokio::sync::mpsc;

use crate::state::Shared;

/// Bytes of a piece.
const PIECE: usize = 64 * 1024;
/// Pieces that are ready before the browser takes them.
const AHEAD: usize = 4;

/// Hands pieces to the browser, and waits while it takes none.
struct Pieces(mpsc::Sender<Written<web::Bytes>>);

impl Write for Pieces {
    fn write(&mut self, bytes: &[u8]) -> Written<usize> {
        let piece = Ok(web::Bytes::copy_from_slice(bytes));
        self.0.blocking_send(piece).map_err(|_| Error::from(ErrorKind::BrokenPipe))?;
        Ok(bytes.len())
    }

    fn flush(&mut self) -> Written<()> {
        Ok(())
    }
}

/// A file that `work` writes. Where that fails half way the browser is told, because the file is not whole.
pub(crate) fn file(
    shared: &web::Data<Shared>,
    (kind, name): (&str, &str),
    work: impl FnOnce(&Shared, &mut dyn Write) -> Result<(), StoreError> + Send + 'static,
) -> HttpResponse {
    let (sender, receiver) = mpsc::channel(AHEAD);
    let inner = shared.clone();
    // Its own thread: while it waits for a browser nobody else's question waits for it.
    std::thread::spawn(move || {
        let mut writer = BufWriter::with_capacity(PIECE, Pieces(sender.clone()));
        let done = work(&inner, &mut writer).and_then(|()| Ok(writer.flush()?));
        match done {
            Ok(()) | Err(StoreError::NotTaken(_)) => {}
            Err(error) => {
                inner.troubles.met(&error);
                tracing::error!(%error, "a file was not written to its end");
                let _ = sender.blocking_send(Err(Error::other(error.to_string())));
            }
        }
    });
    let pieces = stream::unfold(receiver, |mut receiver| async {
        receiver.recv().await.map(|piece| (piece, receiver))
    });
    HttpResponse::Ok()
        .content_type(format!("{kind}; charset=utf-8"))
        .insert_header(("Content-Disposition", format!("attachment; filename=\"{name}\"")))
        .streaming(pieces)
}

/// A file of lines, each written as it is told.
pub(crate) fn csv_file<T, L: Serialize + From<T>>(
    shared: &web::Data<Shared>,
    name: &str,
    records: impl FnOnce(&Shared, &mut dyn FnMut(T) -> Written<()>) -> Result<(), StoreError> + Send + 'static,
) -> HttpResponse {
    file(shared, ("text/csv", name), |shared, to| {
        let mut writer = csv::Writer::from_writer(to);
        records(shared, &mut |one| writer.serialize(L::from(one)).map_err(Error::other))?;
        Ok(writer.flush()?)
    })
}
