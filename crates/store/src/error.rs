//! What can go wrong with the records.

use bodega_core::canner::room::NoRoom;
use bodega_core::jars::bench::AcidFirst;
use bodega_core::towel::seal::NoRescue;
use bodega_model::canner::events::OutOfOrder;
use bodega_model::jars::spoons::NotCounted;
use bodega_model::measures::ids::LotId;

use crate::trouble::{Trouble, said, trouble_of_disk, trouble_of_records};

/// A change or a question the store cannot serve.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// No such record.
    #[error("there is no {what} {id}")]
    NotFound {
        /// Kind of record.
        what: &'static str,
        /// Its number, as asked for.
        id: i64,
    },
    /// More fruit than the lot holds.
    #[error(
        "lot {lot} has {left_g} g left and {wanted_g} g were asked for; take less or correct the lot's weight"
    )]
    Overdrawn {
        /// The lot.
        lot: LotId,
        /// What is left of it.
        left_g: i64,
        /// What was asked for.
        wanted_g: i64,
    },
    /// A correction or a restore would leave less than nothing of a lot.
    #[error("that would leave less than nothing of a lot, because batches have drawn on it")]
    BelowZero,
    /// Less is left in the cold than was asked for.
    #[error(
        "{} is left of it; take less",
        packs.map_or_else(|| format!("{left_g} g"), |packs| format!("{packs} packs or {left_g} g"))
    )]
    ColdShort {
        /// Grams that are left.
        left_g: i64,
        /// Packs that are left.
        packs: Option<u32>,
    },
    /// Some of what is to be taken back went further.
    #[error("some of it went further since; take that back first")]
    MovedOn,
    /// The lot is held back or out.
    #[error("lot {lot} is {condition} and is not canned")]
    NotForJars {
        /// The lot.
        lot: LotId,
        /// Its condition in words.
        condition: &'static str,
    },
    /// A jar cannot be filled before its acid is in.
    #[error(transparent)]
    AcidFirst(#[from] AcidFirst),
    /// Acid that cannot be counted as it was said.
    #[error(transparent)]
    NotMeasured(#[from] NotCounted),
    /// Jars of the load are not ready for the canner.
    #[error("{unready} of {all} jars are not ready: {}", if *no_acid > 0 { format!("{no_acid} without acid") } else { "not all have their lids on".to_owned() })]
    JarsNotReady {
        /// Jars without acid or without a lid.
        unready: usize,
        /// Jars without acid.
        no_acid: usize,
        /// Jars in the load.
        all: usize,
    },
    /// The canner has another load in it.
    #[error("the canner still holds load {position} of batch {code}; lift it first")]
    CannerBusy {
        /// Position of the load that is in.
        position: u32,
        /// Its batch.
        code: String,
    },
    /// The event does not follow.
    #[error(transparent)]
    OutOfOrder(#[from] OutOfOrder),
    /// It was touched before what was said since, and came later.
    #[error(
        "\"{event}\" was touched while there was no connection, and something else was said of this load since"
    )]
    SaidSince {
        /// What it says, in this canner's words.
        event: &'static str,
    },
    /// Nothing to take back.
    #[error("there is nothing to take back")]
    NothingToUndo,
    /// Something happened after what is to be taken back.
    #[error("something else was said since; take that back first")]
    NotTheLast,
    /// Lifting is taken back after lids were judged.
    #[error("lids of this load were judged already; take that back at the towel first")]
    LidsJudged,
    /// Work on the batch has begun.
    #[error("batch {code} has jars in work; take those steps back first")]
    BatchBegun {
        /// Its code.
        code: String,
    },
    /// Bowls that a batch is made from.
    #[error("these bowls belong to batch {code}; take that off the line first")]
    BowlsTaken {
        /// Its code.
        code: String,
    },
    /// Only what goes through the mill waits overnight as juice.
    #[error(
        "batch {code} is not juice on its way; only juice, sauce and paste wait overnight in the refrigerator"
    )]
    NotJuice {
        /// Its code.
        code: String,
    },
    /// The batch cooks.
    #[error("batch {code} is on the stove; take it off first")]
    OnStove {
        /// Its code.
        code: String,
    },
    /// The jar is not on the towel.
    #[error("jar {number} has not come out of the canner yet")]
    NotOnTowel {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The jar was not processed for its full time.
    #[error(
        "jar {number} was not processed: its boil was too short, and a lid that holds does not make up for it; \
         refrigerate it and eat it within days, or boil the load again for the full time"
    )]
    NotProcessed {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The jar was found to be without its acid.
    #[error(
        "jar {number} has no dose of acid, and a lid that holds does not make up for it; within a day open it, add the \
         dose and process it again under a new lid, or refrigerate it and eat it within days"
    )]
    NotDosed {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The jar is still on the bench.
    #[error("jar {number} is still on the bench; take its acid back there")]
    OnBench {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The pot has the dose of the jar.
    #[error(
        "the pot has the dose of jar {number}; if less was stirred in, correct the pot's dose at the bench"
    )]
    InPot {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// Water over the lids is said of a canner that has none there.
    #[error("only in boiling water does water stand over the lids; this load is in steam or under pressure")]
    NoWaterOver,
    /// A jar whose acid is a part of its recipe is said to be without it.
    #[error("jar {number} has its acid from its recipe; say at the bowls what went in")]
    InRecipe {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The jar has nothing but its share of a pot that was dosed for fewer.
    #[error(
        "jar {number} has its acid from the pot, which has too little for all its jars; say all that was stirred in at the bench"
    )]
    PotShort {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// The jar cannot be rescued so.
    #[error("jar {number}: {reason}")]
    NoRescue {
        /// Number of the jar in its batch.
        number: u32,
        /// Why not.
        reason: NoRescue,
    },
    /// The lid was judged too early to count.
    #[error("jar {number}: its lid was judged before it could settle; look at it again after 12 hours")]
    SecondLook {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// There is no such jar on the shelf.
    #[error("there is none of these on the shelf any more")]
    ShelfEmpty,
    /// The jar has left already.
    #[error("jar {number} has left the shelf already")]
    AlreadyGone {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// Something of the cupboard was never counted.
    #[error("{what} was never counted; say how much there is first")]
    NotCounted {
        /// What.
        what: &'static str,
    },
    /// Something cooks in that kettle.
    #[error("something cooks in that kettle already; take it off first, or use another")]
    KettleBusy,
    /// The load is in the canner already.
    #[error(
        "this load is in the canner already; say there what is not so, or take \"Jars are in\" back first"
    )]
    LoadBegun,
    /// A filled jar would be taken off the bench.
    #[error("jar {number} is filled; take its filling back first")]
    JarFilled {
        /// Number of the jar in its batch.
        number: u32,
    },
    /// More jars than the canner holds.
    #[error(
        "the canner does not hold so many in one load: put the rest into a load of their own, take smaller jars or another \
         canner; or count and measure it anew under Kitchen"
    )]
    CannerFull,
    /// A jar that the canner holds none of.
    #[error(transparent)]
    NoRoom(#[from] NoRoom),
    /// Loads were planned for a canner that is to heat otherwise.
    #[error("loads are planned for {name} as it heats now; lift or remove them first, or add another canner")]
    CannerPlanned {
        /// Its name.
        name: String,
    },
    /// The canner heats otherwise than the load was timed for.
    #[error("that load was timed for another kind of canner; plan it anew for this one")]
    OtherMethod,
    /// Loads that do not go together.
    #[error("these loads cannot be put together: one has begun, or they are timed for other canners")]
    NotTogether,
    /// An event about a jar names none, or one that is not in the load.
    #[error("say which jar of this load it is")]
    WhichJar,
    /// A name is taken.
    #[error("there is already something called \"{name}\"")]
    NameTaken {
        /// The name.
        name: String,
    },
    /// Something stands against a jar.
    #[error(
        "{says}: jar {number} is not for the shelf and not to be eaten, whatever its lid does; the towel says what can be done"
    )]
    Stopped {
        /// Number in its batch.
        number: u32,
        /// What stands against it.
        says: String,
    },
    /// Another altitude, and jars that were put up by the one before.
    #[error(
        "jars stand here that were put up at the altitude before: say whether the kitchen moved or that altitude was wrong"
    )]
    WhyAltitude,
    /// Other jars of something else, while the clock counts.
    #[error(transparent)]
    SayHow(#[from] bodega_core::canner::beside::SayHow),
    /// There are records already.
    #[error("there are records here already; bring a document into an empty kitchen only")]
    NotEmpty,
    /// A document with faults.
    #[error("the document was not taken, nothing was changed: {}", faults.join("; "))]
    BadDocument {
        /// Every fault found, up to a limit.
        faults: Vec<String>,
    },
    /// A backup that is not whole.
    #[error("{file} is no good backup: {what}")]
    BadBackup {
        /// The file.
        file: String,
        /// What is wrong with it.
        what: String,
    },
    /// Records should stand here, and do not.
    #[error(
        "the records in {file} {what}; nothing was changed. {}; or start empty with \"bodega serve --new\", which keeps \
        what is there beside it",
        match backup {
            Some(backup) => {
                format!("The newest good backup is {backup}: bring it back with \"bodega restore {backup}\"")
            }
            None => "There is no good backup beside them: bring one of yours back with \"bodega restore FILE\"".to_owned(),
        }
    )]
    NotWhole {
        /// The file.
        file: String,
        /// What is wrong with it, after "the records".
        what: String,
        /// The newest good backup.
        backup: Option<String>,
    },
    /// Nothing is wrong with the records that were to be set aside.
    #[error(
        "the records in {directory} are whole; leave --new out to open them, or name another folder with --data"
    )]
    StillWhole {
        /// The directory.
        directory: String,
    },
    /// Another program has the records open.
    #[error("another Bodega has the records in {directory} open; stop that one first")]
    InUse {
        /// The directory.
        directory: String,
    },
    /// No records to make a backup of.
    #[error("there are no records in {directory}; name their folder with --data")]
    NoRecords {
        /// The directory.
        directory: String,
    },
    /// A backup would be written over something.
    #[error(
        "{file} {}",
        if *is_own {
            "is one of the records' own files; name another"
        } else {
            "is there already; name another, or write over it with --force"
        }
    )]
    FileExists {
        /// The file.
        file: String,
        /// Whether it is the records' own.
        is_own: bool,
    },
    /// The file was written by a newer program.
    #[error("these records were written by a newer Bodega; update the program, the file was left as it is")]
    Newer,
    /// The file could not be brought up to date.
    #[error("the records could not be brought up to date: {0}")]
    Migration(String),
    /// The directory could not be made.
    #[error("the records' folder cannot be used: {}", said(trouble_of_disk(cause), cause))]
    Directory {
        /// What the system said.
        cause: std::io::Error,
    },
    /// Nobody takes what was read.
    #[error("what was read could not be handed on: {0}")]
    NotTaken(#[from] std::io::Error),
    /// Only what cannot be read is put right.
    #[error("there is no such field that cannot be read")]
    NotBroken,
    /// A word that is none of those that would do.
    #[error("\"{value}\" would not do either; take one of the choices")]
    NoSuchWord {
        /// The word as given.
        value: String,
    },
    /// A stored word or number is not one the program knows.
    #[error("a stored record is damaged: {0}")]
    Damaged(String),
    /// SQLite failed.
    #[error("the records could not be read or written: {}", said(trouble_of_records(.0), .0))]
    Sqlite(#[from] rusqlite::Error),
}

impl StoreError {
    /// Whether one stored record is at fault, and not the file or the question.
    fn is_about_a_record(&self) -> bool {
        use rusqlite::Error::{FromSqlConversionFailure, IntegralValueOutOfRange, InvalidColumnType};
        matches!(
            self,
            Self::Damaged(_)
                | Self::Sqlite(
                    FromSqlConversionFailure(..) | IntegralValueOutOfRange(..) | InvalidColumnType(..)
                )
        )
    }

    /// What the disk refuses, when it is the disk.
    #[must_use]
    pub fn trouble(&self) -> Option<Trouble> {
        match self {
            Self::Sqlite(error) => trouble_of_records(error),
            Self::Directory { cause } => trouble_of_disk(cause),
            _ => None,
        }
    }

    /// Whether the file itself is damaged, and not the disk or the question.
    pub(crate) fn is_damage(&self) -> bool {
        self.trouble() == Some(Trouble::Damaged)
    }

    /// Whether one of the schema's own guards spoke.
    pub(crate) fn is_overdraw(error: &rusqlite::Error) -> bool {
        matches!(error, rusqlite::Error::SqliteFailure(_, Some(message)) if message == "lot overdrawn")
    }

    pub(crate) fn from_write(error: rusqlite::Error) -> Self {
        if Self::is_overdraw(&error) { Self::BelowZero } else { Self::Sqlite(error) }
    }
}

/// What was read, or nothing when that one record cannot be: it stands on a card of its own
/// ([`crate::Store::broken`]) and takes no other with it.
///
/// # Errors
/// Every other error as it is.
pub fn if_readable<T>(read: Result<T, StoreError>) -> Result<Option<T>, StoreError> {
    match read {
        Err(error) if error.is_about_a_record() => Ok(None),
        other => other.map(Some),
    }
}
