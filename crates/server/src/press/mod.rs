//! The program that makes documents: given up where it takes too long. Papers and drawings of a studio come one after another from a
//! worker of its own; a picture that somebody sends is looked over by a process that ends with it.

mod workers;

use std::{
    path::PathBuf,
    process::Stdio,
    sync::Arc,
    time::{Duration, Instant},
};

use axum::body::Bytes;
use hummock_core::{
    Refusal,
    house::{LabelSize, PaperSize},
    quantity::LengthUnit,
};
use hummock_store::{Settings, StudioId};
use serde::Serialize;
use serde_json::{Value, json};
use tokio::{
    io::{AsyncReadExt as _, AsyncWriteExt as _},
    process::Command,
    sync::Semaphore,
};

use crate::problem::Problem;
use workers::{Task, Workers};

/// Who makes documents.
#[derive(Debug, Clone)]
pub struct Documents {
    program: PathBuf,
    longest: Duration,
    at_once: Arc<Semaphore>,
    workers: Arc<Workers>,
}

/// How many documents are made at once; others wait for their turn.
const AT_ONCE: usize = 2;
const LONGEST: Duration = Duration::from_secs(9);
/// Where too much is asked for, it is asked for again after this.
const SECONDS_OFF: u64 = 5;
/// A document that is larger is given up.
const LARGEST: u64 = 64 << 20;
const LARGEST_COMPLAINT: u64 = 4096;
const PROGRAM: &str = "hummock-documents";

impl Documents {
    /// By a program that may be there, or come later.
    #[must_use]
    pub fn by(program: PathBuf) -> Self {
        Self {
            program,
            longest: LONGEST,
            at_once: Arc::new(Semaphore::new(AT_ONCE)),
            workers: Arc::default(),
        }
    }

    /// Gives up what takes longer.
    #[must_use]
    pub fn within(self, longest: Duration) -> Self {
        Self { longest, ..self }
    }

    /// By the program that stands beside this one, or one folder up.
    #[must_use]
    pub fn beside_this_program() -> Self {
        let here = std::env::current_exe().unwrap_or_default();
        let found = here
            .ancestors()
            .skip(1)
            .take(2)
            .map(|folder| folder.join(PROGRAM))
            .find(|program| program.exists());
        Self::by(found.unwrap_or_else(|| here.with_file_name(PROGRAM)))
    }

    pub(crate) fn program(&self) -> &std::path::Path {
        &self.program
    }

    pub(crate) fn is_ready(&self) -> bool {
        self.program.exists()
    }

    /// Has the program started, so that the first document need not wait for it.
    pub(crate) fn start_ahead(&self) {
        if self.is_ready() {
            self.workers.start_ahead(&self.program);
        }
    }

    /// Has a document of a studio made.
    ///
    /// # Errors
    /// A [`Problem`]: there is no such program yet, it refused with a sentence, or it took too long.
    pub(crate) async fn make(
        &self,
        studio: StudioId,
        asked: &Value,
        field: &str,
    ) -> Result<Vec<u8>, Problem> {
        let asked = serde_json::to_vec(asked).map_err(|_| Problem::document_failed())?;
        let made = self.by_worker(studio, Task::Draw, &asked);
        self.in_turn(made, field, Problem::document_failed).await
    }

    /// Has a photograph looked over: a line that says how large it is, and the picture as it is kept.
    ///
    /// # Errors
    /// As [`Documents::make`], of the `file`.
    pub(crate) async fn photograph(&self, file: &[u8]) -> Result<Vec<u8>, Problem> {
        self.looked_over("photograph", file).await
    }

    /// Has a studio's own mark looked over: the picture as PNG.
    ///
    /// # Errors
    /// As [`Documents::make`], of the `file`.
    pub(crate) async fn mark(&self, file: &[u8]) -> Result<Vec<u8>, Problem> {
        self.looked_over("mark", file).await
    }

    /// Has a paper of a studio set, with its pictures.
    ///
    /// # Errors
    /// As [`Documents::make`].
    pub(crate) async fn paper(
        &self,
        studio: StudioId,
        printed: Printed<'_>,
    ) -> Result<Vec<u8>, Problem> {
        let Printed {
            kind,
            says,
            pictures,
            page,
        } = printed;
        let asked =
            json!({ "paper": kind, "says": says, "pictures": pictures.len(), "page": page });
        let mut question = serde_json::to_vec(&asked).map_err(|_| Problem::document_failed())?;
        question.push(b'\n');
        for picture in pictures {
            let length = u32::try_from(picture.len()).map_err(|_| Problem::document_failed())?;
            question.extend(length.to_be_bytes());
            question.extend_from_slice(picture);
        }
        let made = self.by_worker(studio, Task::Paper, &question);
        self.in_turn(made, "paper", Problem::document_failed).await
    }

    async fn looked_over(&self, task: &str, file: &[u8]) -> Result<Vec<u8>, Problem> {
        // A picture that takes too much room or time would do so every time that it is sent.
        let too_hard = || vec![Refusal::new("file", TOO_HARD)].into();
        self.in_turn(self.by_itself(task, file), "file", too_hard)
            .await
    }

    /// Waits for a turn and then for the document; `too_long` is told of one that had all the time that there is.
    async fn in_turn(
        &self,
        made: impl Future<Output = std::io::Result<Result<Vec<u8>, String>>>,
        field: &str,
        too_long: impl FnOnce() -> Problem,
    ) -> Result<Vec<u8>, Problem> {
        if !self.is_ready() {
            return Err(Problem::no_documents_yet());
        }
        let begun = Instant::now();
        let turn = tokio::time::timeout(self.longest, self.at_once.acquire()).await;
        let Ok(_turn) = turn else {
            return Err(Problem::much_to_draw().after(SECONDS_OFF));
        };
        let left = self.longest.saturating_sub(begun.elapsed());
        match tokio::time::timeout(left, made).await {
            Ok(Ok(Ok(document))) => Ok(document),
            Ok(Ok(Err(says))) => Err(vec![Refusal::new(field, says)].into()),
            Ok(Err(error)) => {
                tracing::error!(%error, "a document was not made");
                Err(Problem::document_failed())
            }
            // What had its time from the beginning takes too long; what waited for its turn may have it the next time.
            Err(_) if left * 2 < self.longest => Err(Problem::much_to_draw().after(SECONDS_OFF)),
            Err(_) => Err(too_long()),
        }
    }

    /// The document of a worker of the studio, or the sentence that stands against it. A worker that fails, or is given up, ends.
    async fn by_worker(
        &self,
        studio: StudioId,
        task: Task,
        asked: &[u8],
    ) -> std::io::Result<Result<Vec<u8>, String>> {
        let mut worker = self.workers.take(&self.program, studio.id())?;
        let answer = worker.ask(task, asked).await?;
        self.workers.put_back(&self.program, worker);
        Ok(answer)
    }

    /// What a process of its own makes of a picture, or the sentence that stands against it.
    async fn by_itself(
        &self,
        task: &str,
        asked: &[u8],
    ) -> std::io::Result<Result<Vec<u8>, String>> {
        let mut process = Command::new(&self.program)
            .arg(task)
            .env_clear()
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .stderr(Stdio::piped())
            .kill_on_drop(true)
            .spawn()?;
        let (Some(mut question), Some(answer), Some(complaint)) = (
            process.stdin.take(),
            process.stdout.take(),
            process.stderr.take(),
        ) else {
            return Err(std::io::Error::other("it has no pipes"));
        };
        let ask = async {
            // One that ends before it has read everything says why.
            let _ = question.write_all(asked).await;
            drop(question);
        };
        let (mut document, mut says) = (Vec::new(), Vec::new());
        let hear = async { answer.take(LARGEST + 1).read_to_end(&mut document).await };
        let mind = async {
            complaint
                .take(LARGEST_COMPLAINT)
                .read_to_end(&mut says)
                .await
        };
        let ((), heard, minded) = tokio::join!(ask, hear, mind);
        heard?;
        minded?;
        let status = process.wait().await?;
        let says = String::from_utf8_lossy(&says).trim().to_owned();
        match status.code() {
            // One that was stopped on its way may say that all is well.
            Some(0) if document.is_empty() => {
                Err(std::io::Error::other("it ended well and made nothing"))
            }
            Some(0) => Ok(Ok(document)),
            Some(2) => Ok(Err(says)),
            _ => Ok(Err(TOO_HARD.to_owned())),
        }
    }
}

/// What is said of a picture that the program can't look over; it would not the next time that it is sent.
const TOO_HARD: &str =
    "the picture is too large to check: save it smaller or as JPEG, and add it again";

/// What a studio prints on.
#[derive(Debug, Clone, Copy, Serialize)]
pub(crate) struct Page {
    paper: PaperSize,
    label: LabelSize,
    /// Whether the bar to check the printer by is in inches.
    inches: bool,
}

impl Page {
    /// Returns what a studio of these settings prints on.
    pub(crate) fn of(settings: &Settings) -> Self {
        Self {
            paper: settings.manners.paper,
            label: settings.manners.label,
            inches: settings.unit == LengthUnit::In,
        }
    }
}

/// A paper to be set.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Printed<'a> {
    /// The kind of paper.
    pub kind: &'a str,
    /// What it says.
    pub says: &'a Value,
    /// The studio's own mark first, where it says that it has one; then photographs.
    pub pictures: &'a [Bytes],
    /// On what.
    pub page: Page,
}
