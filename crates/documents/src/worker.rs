//! Documents one after another, all of one studio: each question comes in a frame, and so does its answer.
//!
//! A question is a byte for its task, its length in four bytes, the highest first, and as many bytes; an answer is a byte that says how it
//! went, its length, and the document or the sentence that stands against it.

use std::io::{ErrorKind, Read, Write};

use rlimit::Resource;

/// What is asked for.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Task {
    /// A drawing or a cut list, or the lines of a drawing.
    Draw,
    /// A paper with its pictures.
    Paper,
}

impl Task {
    const fn of(byte: u8) -> Option<Self> {
        match byte {
            b'd' => Some(Self::Draw),
            b'p' => Some(Self::Paper),
            _ => None,
        }
    }

    const fn largest_question(self) -> u64 {
        match self {
            Self::Draw => super::LARGEST_QUESTION,
            Self::Paper => super::LARGEST_PAPER,
        }
    }
}

/// What a process holds by then goes with it.
const MOST_ANSWERS: u64 = 50;
const MADE: u8 = 0;
const REFUSED: u8 = 2;

/// Answers questions until there are no more, or until it has answered enough.
///
/// # Errors
/// A sentence, where a question breaks off or an answer can't be handed on.
pub(crate) fn work(
    from: &mut impl Read,
    to: &mut impl Write,
    made: impl Fn(Task, &[u8]) -> Result<Vec<u8>, String>,
) -> Result<(), String> {
    for nth in 1..=MOST_ANSWERS {
        let Some((task, question)) = next_question(from)? else {
            return Ok(());
        };
        bound_seconds(nth)?;
        let (code, answer) = match made(task, &question) {
            Ok(document) => (MADE, document),
            Err(says) => (REFUSED, says.into_bytes()),
        };
        let length = u32::try_from(answer.len()).map_err(|_| "the answer is too long")?;
        let mut head = vec![code];
        head.extend(length.to_be_bytes());
        let written = to.write_all(&head).and_then(|()| to.write_all(&answer));
        let written = written.and_then(|()| to.flush());
        written.map_err(|error| format!("an answer can't be handed on: {error}"))?;
    }
    Ok(())
}

/// Returns the next question; `None` once there are no more.
fn next_question(from: &mut impl Read) -> Result<Option<(Task, Vec<u8>)>, String> {
    let broken = |error: std::io::Error| format!("a question breaks off: {error}");
    let mut head = [0; 5];
    match from.read_exact(&mut head[..1]) {
        Ok(()) => {}
        Err(error) if error.kind() == ErrorKind::UnexpectedEof => return Ok(None),
        Err(error) => return Err(broken(error)),
    }
    from.read_exact(&mut head[1..]).map_err(broken)?;
    let [byte, length @ ..] = head;
    let task = Task::of(byte).ok_or("the task is not known")?;
    let length = u64::from(u32::from_be_bytes(length));
    if length > task.largest_question() {
        return Err("the question is too long".to_owned());
    }
    let mut question = Vec::new();
    from.take(length)
        .read_to_end(&mut question)
        .map_err(broken)?;
    match u64::try_from(question.len()) == Ok(length) {
        true => Ok(Some((task, question))),
        false => Err("a question breaks off".to_owned()),
    }
}

/// Raises the limit of processor time by one answer's share. The server ends a worker that takes too long; the limit does it where the
/// server is gone.
fn bound_seconds(nth: u64) -> Result<(), String> {
    let hard = super::MOST_SECONDS * MOST_ANSWERS;
    rlimit::setrlimit(Resource::CPU, super::MOST_SECONDS * nth, hard)
        .map_err(|error| format!("what it may use can't be bounded: {error}"))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn framed(byte: u8, text: &str) -> Vec<u8> {
        let length = u32::try_from(text.len()).expect("it is short");
        let mut frame = vec![byte];
        frame.extend(length.to_be_bytes());
        frame.extend(text.as_bytes());
        frame
    }

    /// Hands a question back as its answer, and refuses an empty one.
    fn echo(_: Task, question: &[u8]) -> Result<Vec<u8>, String> {
        match question {
            [] => Err("nothing".to_owned()),
            _ => Ok(question.to_vec()),
        }
    }

    #[test]
    fn each_question_has_its_answer_and_a_refusal_ends_nothing() {
        let asked = [framed(b'p', "one"), framed(b'd', ""), framed(b'd', "three")].concat();
        let mut answers = Vec::new();
        work(&mut asked.as_slice(), &mut answers, echo).expect("all is answered");
        let then = [
            framed(MADE, "one"),
            framed(REFUSED, "nothing"),
            framed(MADE, "three"),
        ];
        assert_eq!(answers, then.concat());
    }

    /// Kills a worker that never ends: what one studio left in it would go on to grow.
    #[test]
    fn fifty_answers_are_given_and_no_more() {
        let asked = framed(b'p', "again").repeat(60);
        let mut answers = Vec::new();
        work(&mut asked.as_slice(), &mut answers, echo).expect("all is answered");
        assert_eq!(answers, framed(MADE, "again").repeat(50));
    }

    #[test]
    fn a_question_that_breaks_off_is_no_question() {
        let whole = framed(b'p', "whole");
        for short in 1..whole.len() {
            let mut answers = Vec::new();
            let ended = work(&mut &whole[..short], &mut answers, echo);
            assert!(ended.is_err() && answers.is_empty(), "{short}");
        }
        let ended = work(&mut framed(b'x', "?").as_slice(), &mut Vec::new(), echo);
        assert_eq!(ended, Err("the task is not known".to_owned()));
        let mut long = vec![b'd'];
        long.extend(u32::MAX.to_be_bytes());
        let ended = work(&mut long.as_slice(), &mut Vec::new(), echo);
        assert_eq!(ended, Err("the question is too long".to_owned()));
    }
}
