//! Programs that make documents one after another: each for one studio alone, and ended after a number of them.

use std::{
    path::Path,
    process::Stdio,
    sync::{Arc, Mutex, PoisonError},
    time::{Duration, Instant},
};

use tokio::{
    io::{AsyncReadExt as _, AsyncWriteExt as _},
    process::{Child, ChildStderr, ChildStdin, ChildStdout, Command},
};
use uuid::Uuid;

use super::{AT_ONCE, LARGEST, LARGEST_COMPLAINT};

/// What is asked of a worker, as it reads it.
#[derive(Debug, Clone, Copy)]
pub(super) enum Task {
    /// A drawing or a cut list, or the lines of a drawing.
    Draw,
    /// A paper with its pictures.
    Paper,
}

impl Task {
    const fn byte(self) -> u8 {
        match self {
            Self::Draw => b'd',
            Self::Paper => b'p',
        }
    }
}

/// The most documents that one worker makes. Its process ends after the last one, and its cache with it.
const MOST_MADE: u32 = 50;
/// An idle worker is ended after this time.
const IDLE_FOR: Duration = Duration::from_secs(120);

/// The workers that wait for a question.
#[derive(Debug, Default)]
pub(super) struct Workers(Mutex<Vec<Worker>>);

/// A program that makes one document after another. It ends when it is dropped.
#[derive(Debug)]
pub(super) struct Worker {
    process: Child,
    question: ChildStdin,
    answer: ChildStdout,
    complaint: ChildStderr,
    /// Whose documents it makes; `None` before the first.
    studio: Option<Uuid>,
    made: u32,
    /// Since when it waits.
    waits: Instant,
}

impl Workers {
    /// Returns a worker of a studio: one that waits, or has made nothing yet, or that is started now.
    pub(super) fn take(&self, program: &Path, studio: Uuid) -> std::io::Result<Worker> {
        let mut idle = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        idle.retain_mut(Worker::lives);
        let whose = |whose: Option<Uuid>| idle.iter().position(|one| one.studio == whose);
        let found = whose(Some(studio)).or_else(|| whose(None));
        let taken = found.map(|at| idle.swap_remove(at));
        drop(idle);
        let mut worker = match taken {
            Some(worker) => worker,
            None => Worker::start(program)?,
        };
        worker.studio = Some(studio);
        Ok(worker)
    }

    /// Takes a worker back that has answered, and has another one started that has made nothing yet.
    pub(super) fn put_back(self: &Arc<Self>, program: &Path, worker: Worker) {
        if worker.made < MOST_MADE {
            let waits = Instant::now();
            self.end_idle_later();
            let mut idle = self.0.lock().unwrap_or_else(PoisonError::into_inner);
            idle.push(Worker { waits, ..worker });
            // No more of them work at once: whichever waits longest goes.
            let claimed = |idle: &[Worker]| idle.iter().filter(|one| one.studio.is_some()).count();
            while claimed(&idle) > AT_ONCE {
                let oldest = idle.iter().position(|one| one.studio.is_some());
                oldest.map(|at| idle.remove(at));
            }
        }
        self.start_ahead(program);
    }

    /// Starts a worker that has made nothing yet, unless there is one: it reads its fonts while nobody waits for it.
    pub(super) fn start_ahead(self: &Arc<Self>, program: &Path) {
        let mut idle = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if !idle.iter().any(|one| one.studio.is_none()) {
            match Worker::start(program) {
                Ok(worker) => {
                    idle.push(worker);
                    self.end_idle_later();
                }
                Err(error) => tracing::warn!(%error, "no worker is started ahead"),
            }
        }
    }

    fn end_idle_later(self: &Arc<Self>) {
        let workers = Arc::downgrade(self);
        tokio::spawn(async move {
            tokio::time::sleep(IDLE_FOR).await;
            if let Some(workers) = workers.upgrade() {
                let mut idle = workers.0.lock().unwrap_or_else(PoisonError::into_inner);
                idle.retain(|one| one.waits.elapsed() < IDLE_FOR);
            }
        });
    }
}

impl Worker {
    fn start(program: &Path) -> std::io::Result<Self> {
        let mut process = Command::new(program)
            .arg("work")
            .env_clear()
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .stderr(Stdio::piped())
            .kill_on_drop(true)
            .spawn()?;
        let pipes = (
            process.stdin.take(),
            process.stdout.take(),
            process.stderr.take(),
        );
        let (Some(question), Some(answer), Some(complaint)) = pipes else {
            return Err(std::io::Error::other("it has no pipes"));
        };
        Ok(Self {
            process,
            question,
            answer,
            complaint,
            studio: None,
            made: 0,
            waits: Instant::now(),
        })
    }

    fn lives(&mut self) -> bool {
        matches!(self.process.try_wait(), Ok(None))
    }

    /// Returns the document, or the sentence that stands against it.
    ///
    /// # Errors
    /// When it ended, or answers what is no answer; it is of no use then.
    pub(super) async fn ask(
        &mut self,
        task: Task,
        asked: &[u8],
    ) -> std::io::Result<Result<Vec<u8>, String>> {
        match self.answered(task, asked).await {
            Ok(answer) => {
                self.made += 1;
                Ok(answer)
            }
            Err(error) => {
                let mut says = Vec::new();
                let complaint = (&mut self.complaint).take(LARGEST_COMPLAINT);
                // One that never ends says nothing either.
                self.process.start_kill()?;
                let _ = { complaint }.read_to_end(&mut says).await;
                let says = String::from_utf8_lossy(&says).trim().to_owned();
                Err(std::io::Error::other(format!("{error}: {says}")))
            }
        }
    }

    async fn answered(
        &mut self,
        task: Task,
        asked: &[u8],
    ) -> std::io::Result<Result<Vec<u8>, String>> {
        let length = u32::try_from(asked.len()).map_err(std::io::Error::other)?;
        self.question.write_u8(task.byte()).await?;
        self.question.write_u32(length).await?;
        self.question.write_all(asked).await?;
        self.question.flush().await?;
        let code = self.answer.read_u8().await?;
        let length = u64::from(self.answer.read_u32().await?);
        if length > LARGEST {
            return Err(std::io::Error::other("the document grows too large"));
        }
        let mut answer = Vec::new();
        let answer_of = (&mut self.answer).take(length);
        { answer_of }.read_to_end(&mut answer).await?;
        match code {
            _ if u64::try_from(answer.len()) != Ok(length) => {
                Err(std::io::Error::other("its answer breaks off"))
            }
            0 if answer.is_empty() => Err(std::io::Error::other("it made nothing")),
            0 => Ok(Ok(answer)),
            2 => Ok(Err(String::from_utf8_lossy(&answer).trim().to_owned())),
            _ => Err(std::io::Error::other("unreadable answer")),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// It stays, as a worker does, and says the same again and again.
    const PROGRAM: &str = "/usr/bin/yes";

    fn of(workers: &Workers, studio: Uuid) -> Worker {
        workers
            .take(Path::new(PROGRAM), studio)
            .expect("it is started")
    }

    /// Returns which process a worker is, once it is put back.
    fn back(workers: &Arc<Workers>, worker: Worker) -> Option<u32> {
        let id = worker.process.id();
        workers.put_back(Path::new(PROGRAM), worker);
        id
    }

    /// Kills a pool that hands out whichever worker waits.
    #[tokio::test]
    async fn two_studios_never_share_a_worker() {
        let workers = Arc::default();
        let studios = [1, 2, 3, 4].map(Uuid::from_u128);
        let mut whose = std::collections::HashMap::new();
        for turn in [0, 1, 0, 1, 2, 3, 0, 2, 1, 3, 3, 0] {
            let worker = of(&workers, studios[turn]);
            let id = worker.process.id().expect("it lives");
            assert_eq!(*whose.entry(id).or_insert(turn), turn, "{id}");
            assert_eq!(back(&workers, worker), Some(id));
        }
        let waiting = workers.0.lock().expect("it is not poisoned");
        let claimed = waiting.iter().filter(|one| one.studio.is_some()).count();
        let ahead = waiting.len() - claimed;
        assert_eq!((claimed, ahead), (AT_ONCE, 1));
    }

    #[tokio::test]
    async fn a_worker_is_asked_again_until_it_has_made_enough() {
        let workers = Arc::default();
        let studio = Uuid::from_u128(1);
        let mut first = of(&workers, studio);
        first.made = MOST_MADE - 1;
        let first = back(&workers, first);
        let mut again = of(&workers, studio);
        assert_eq!(again.process.id(), first);
        again.made += 1;
        back(&workers, again);
        let other = of(&workers, studio);
        assert_ne!(other.process.id(), first);
        assert_eq!(other.made, 0);
    }

    /// One that was ended from outside while it waited is not asked, and one that answers nonsense is of no use.
    #[tokio::test]
    async fn a_worker_that_is_gone_is_not_asked() {
        let workers: Arc<Workers> = Arc::default();
        let studio = Uuid::from_u128(1);
        let mut gone = of(&workers, studio);
        gone.process.kill().await.expect("it ends");
        let gone = back(&workers, gone);
        let mut other = of(&workers, studio);
        assert!(other.process.id().is_some() && other.process.id() != gone);
        // What it says reads as an answer of half a million pages.
        let answer = other.ask(Task::Draw, b"{}").await;
        let says = answer.expect_err("it is no answer").to_string();
        assert!(says.contains("too large"), "{says}");
    }
}
