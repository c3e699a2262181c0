/// Rows that may be sent to somebody who must not see the data: laid out alike, as odd, as often repeated and as widely
/// spread, and made up.
///
/// What comes in: [fixshelf.profile.DataLook]s of datasets, and the words that their user agreed to. What goes out: a
/// file and a page for each ([StandIn]), and what the jobs that read them do with both ([JobsAlike]).
///
/// Every value is taken apart into runs of letters and of digits ([Runs]); for the runs of a value others are found,
/// always the same ones for the same value ([Substitutes]); capitals, accents, zeros, blanks and marks stay where they
/// are. What makes the choice is a secret that is made for one stand-in and forgotten.
///
/// Read first: [StandIn], [Substitutes].
@NullMarked
package fixshelf.standin;

import org.jspecify.annotations.NullMarked;
