//! Command line of the one binary people run.

use std::net::{IpAddr, Ipv4Addr, TcpListener};
use std::path::{Path, PathBuf};

use anyhow::Context;
use bodega::admission::devices::Devices;
use bodega::clock::Clock;
use bodega::network::opening::{self, Asked, Opening};
use bodega::network::routes::check_passcode;
use bodega::{demo, safe, serve, watch};
use bodega_store::{DataLock, Store, StoreError};
use clap::{Args, Parser, Subcommand};
use jiff::civil::Date;
use tracing_subscriber::filter::LevelFilter;

/// The counter of a tomato canning kitchen.
#[derive(Parser)]
#[command(version)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve a kitchen's records on this machine.
    Serve {
        /// Directory of the records; made when absent.
        #[arg(long, default_value = "bodega-data")]
        data: PathBuf,
        /// Port on the loopback address; 0 takes a free one.
        #[arg(long, default_value_t = 4730)]
        port: u16,
        #[command(flatten)]
        network: NetworkArgs,
        /// Begin with an empty kitchen where the records are not whole; what is there is kept beside it.
        #[arg(long, conflicts_with = "rescue")]
        new: bool,
        /// Offer a page with the choice where the records are not whole, instead of ending.
        #[arg(long)]
        rescue: bool,
    },
    /// Serve a made-up kitchen in the middle of a September day.
    Demo {
        /// Empty directory for the demo's records; a temporary one when left out.
        #[arg(long)]
        data: Option<PathBuf>,
        /// How many times as fast as the wall its clock runs.
        #[arg(long, default_value_t = 1, value_parser = clap::value_parser!(u32).range(1..=3600))]
        pace: u32,
        #[command(flatten)]
        network: NetworkArgs,
        /// Start with the kitchen alone, before the first crate comes in.
        #[arg(long)]
        bare: bool,
        /// Port on the loopback address; 0 takes a free one.
        #[arg(long, default_value_t = 4730)]
        port: u16,
    },
    /// Write a backup of a kitchen's records to a file, whether Bodega runs or not.
    Backup {
        /// The file to write.
        file: PathBuf,
        /// Write over a file that is there.
        #[arg(long)]
        force: bool,
        /// Directory of the records.
        #[arg(long, default_value = "bodega-data")]
        data: PathBuf,
    },
    /// Put a backup in the place of a kitchen's records; what was there is kept beside it. Stop Bodega first.
    Restore {
        /// The backup.
        file: PathBuf,
        /// Directory of the records.
        #[arg(long, default_value = "bodega-data")]
        data: PathBuf,
    },
    /// Set the passcode that lets a device of the home network in; it is read from standard input.
    Passcode {
        /// Directory of the records.
        #[arg(long, default_value = "bodega-data")]
        data: PathBuf,
    },
}

#[derive(Args)]
struct NetworkArgs {
    /// Open the kitchen to the home network too, over HTTPS and for devices that are let in.
    #[arg(long)]
    network: bool,
    /// A name of this machine in the network, as in pantry.local.
    #[arg(long, requires = "network")]
    name: Option<String>,
    /// An address of this machine in the network; found when left out, may be said several times.
    #[arg(long, requires = "network")]
    address: Vec<IpAddr>,
    /// Port of the kitchen in the network; 0 takes a free one.
    #[arg(long, default_value_t = 4731, requires = "network")]
    network_port: u16,
    /// Port of the page that helps a device trust it, over plain http; 0 takes a free one.
    #[arg(long, default_value_t = 4732, requires = "network")]
    help_port: u16,
}

impl NetworkArgs {
    /// The doors that are asked for, open.
    fn open(self, data: &Path, today: Date) -> anyhow::Result<Option<Opening>> {
        let asked = Asked {
            name: self.name,
            addresses: self.address,
            port: self.network_port,
            help_port: self.help_port,
        };
        self.network.then(|| opening::open(data, &asked, today)).transpose()
    }
}

fn main() -> anyhow::Result<()> {
    // "RUST_LOG=info" says more.
    let asked = std::env::var("RUST_LOG").ok().and_then(|level| level.parse().ok());
    tracing_subscriber::fmt()
        .with_max_level(asked.unwrap_or(LevelFilter::WARN))
        .with_writer(std::io::stderr)
        .init();
    bodega_core::check_tables()?;
    match Cli::parse().command {
        Command::Serve { data, port, network, new, rescue } => {
            let listener = listen(port)?;
            if new {
                bodega_store::begin_anew(&data, &stamp())?;
            }
            let store = match Store::open(&data) {
                Err(error @ StoreError::NotWhole { .. }) if rescue => {
                    println!("Bodega is closed at http://{}: {error}", listener.local_addr()?);
                    safe::rescue::offer(&listener, &data, &error)?;
                    Store::open(&data)?
                }
                opened => opened?,
            };
            let clock = watch::wake(&store);
            let opening = network.open(&data, Clock::wall().today())?;
            serve::run(store, clock, listener, opening)
        }
        Command::Demo { data, pace, network, bare, port } => {
            let listener = listen(port)?;
            let temporary = tempfile::tempdir()?;
            let directory = data.unwrap_or_else(|| temporary.path().to_owned());
            demo::check_empty(&directory)?;
            let clock = Clock::starting_at(demo::opening_moment()?, pace);
            let store = Store::open(&directory)?;
            let opening = network.open(&directory, Clock::wall().today())?;
            let set_up =
                if bare { demo::furnish(&store, clock.now()) } else { demo::fill(&store, clock.now()) };
            set_up.context("the demo kitchen could not be set up")?;
            serve::run(store, clock, listener, opening)
        }
        Command::Backup { file, force, data } => {
            bodega_store::backup(&data, &file, force)?;
            println!("The records are in {}", file.display());
            Ok(())
        }
        Command::Restore { file, data } => {
            let kept = bodega_store::restore(&file, &data, &stamp())?;
            println!("The records of {} are back", file.display());
            if let Some(kept) = kept {
                println!("What was there before is kept in {}", kept.display());
            }
            Ok(())
        }
        Command::Passcode { data } => {
            let mut passcode = String::new();
            std::io::stdin().read_line(&mut passcode)?;
            let passcode = passcode.trim();
            check_passcode(passcode)?;
            // A program that runs would write over it: there it is set in Kitchen.
            let _lock = DataLock::take(&data)?;
            Devices::of(&data)?.set_passcode(passcode)?;
            println!("The passcode is set");
            Ok(())
        }
    }
}

/// What tells one set of files that were set aside from another.
fn stamp() -> String {
    Clock::wall().now().0.to_string()
}

fn listen(port: u16) -> anyhow::Result<TcpListener> {
    TcpListener::bind((Ipv4Addr::LOCALHOST, port))
        .with_context(|| format!("port {port} is taken; give another with --port"))
}
