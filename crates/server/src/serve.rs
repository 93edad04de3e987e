//! The program answering: on this machine over plain http, and in the home network over HTTPS where it was opened to it.

use std::io::Write;
use std::net::TcpListener;
use std::sync::Arc;

use actix_web::middleware::from_fn;
use actix_web::{App, HttpServer, web};
use bodega_store::Store;

use crate::clock::Clock;
use crate::door::Names;
use crate::network::opening::Opening;
use crate::network::trust::Trust;
use crate::network::{let_in, trust};
use crate::state::Shared;
use crate::{door, qr, routes, safe, watch};

/// How long an answer that is under way is waited for when the program ends, in seconds.
const LAST_ANSWERS: u64 = 1;

/// Answers until the program is ended.
///
/// # Errors
/// When the doors cannot be served.
pub fn run(store: Store, clock: Clock, own: TcpListener, opening: Option<Opening>) -> anyhow::Result<()> {
    let address = own.local_addr()?;
    let mut shared = Shared::new(store, clock);
    let mut names = Names::of_loopback(address);
    let mut doors = None;
    let mut told = vec![format!("Bodega is open at http://{address}")];
    if let Some(Opening { kitchen, help, key, authority, hosts, help_hosts, network }) = opening {
        if let Some(reach) = &network.reach {
            told.push(format!("In the home network it is open at {}", reach.urls.join(" and ")));
            told.push(format!("To let a device trust it, open {} there", reach.help));
            told.push(qr::text(&reach.url).map_err(anyhow::Error::msg)?);
            if authority.is_new {
                told.push("Its certificate is new: every device takes it in once more".to_owned());
            }
            doors = Some((kitchen, help, key, Trust::of(&authority, &reach.url)?, help_hosts));
        }
        names = names.and_secure(hosts);
        shared.network = network;
    }
    let shared = web::Data::from(Arc::new(shared));
    actix_web::rt::System::new().block_on(async move {
        actix_web::rt::spawn(safe::backups::look_through(shared.clone()));
        actix_web::rt::spawn(safe::backups::keep_daily(shared.clone()));
        actix_web::rt::spawn(watch::watch(shared.clone()));
        let mut server = HttpServer::new(move || {
            App::new()
                .app_data(shared.clone())
                .app_data(web::ThinData(names.clone()))
                .wrap(from_fn(let_in::guard))
                .wrap(from_fn(door::guard))
                .wrap(door::headers())
                .configure(routes::routes)
        })
        .workers(2)
        .shutdown_timeout(LAST_ANSWERS)
        .listen(own)?;
        if let Some((kitchen, help, key, trust, hosts)) = doors {
            for listener in kitchen {
                server = server.listen_rustls_0_23(listener, key.clone())?;
            }
            actix_web::rt::spawn(serve_help(help, trust, hosts)?);
        }
        let server = server.run();
        // The first line on standard output carries the address: scripts and tests read it from there.
        // Whoever reads only that one has closed the pipe by then.
        let _ = writeln!(std::io::stdout(), "{}", told.join("\n"));
        server.await
    })?;
    Ok(())
}

/// The page that helps a device trust the kitchen.
fn serve_help(
    listeners: Vec<TcpListener>,
    trust: Trust,
    hosts: Vec<String>,
) -> std::io::Result<actix_web::dev::Server> {
    let (trust, names) = (web::Data::new(trust), Names::of_plain(hosts));
    let mut server = HttpServer::new(move || {
        App::new()
            .app_data(trust.clone())
            .app_data(web::ThinData(names.clone()))
            .wrap(from_fn(door::guard))
            .wrap(door::headers())
            .configure(trust::routes)
    })
    .workers(1)
    .disable_signals()
    .shutdown_timeout(LAST_ANSWERS);
    for listener in listeners {
        server = server.listen(listener)?;
    }
    Ok(server.run())
}
