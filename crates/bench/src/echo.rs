//! What Actix alone costs: a handler that takes JSON apart and answers with JSON of the size that Bodega answers with.

use std::net::{Ipv4Addr, TcpListener};

use actix_web::{App, HttpResponse, HttpServer, web};
use serde_json::Value;

async fn echo(answer: web::Data<Value>, _body: web::Json<Value>) -> HttpResponse {
    HttpResponse::Ok().json(&**answer)
}

/// Answers until the process is ended, with as many workers as Bodega has.
///
/// # Errors
/// When no port is free.
pub fn run(answer: &str) -> anyhow::Result<()> {
    let answer = web::Data::new(serde_json::from_str::<Value>(answer)?);
    let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, 0))?;
    println!("http://{}", listener.local_addr()?);
    actix_web::rt::System::new().block_on(async move {
        HttpServer::new(move || {
            let app = App::new().app_data(answer.clone());
            app.route("/", web::post().to(echo)).route("/", web::get().to(HttpResponse::Ok))
        })
        .workers(2)
        .listen(listener)?
        .run()
        .await
    })?;
    Ok(())
}
