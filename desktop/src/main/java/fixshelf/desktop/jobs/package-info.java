/// *Jobs*: lines on the left, rows and what a line did on the right.
///
/// [JobModel] is the job that is worked on, without nodes; [JobCard] shows its lines and their
/// blanks, [JobRows] the rows, the report and the numbers of the chosen one; the ledger, the life
/// of a cell and outputs are pages of their own.
///
/// Read first: [JobsPlace], [JobModel], [JobCard].
@NullMarked
package fixshelf.desktop.jobs;

import org.jspecify.annotations.NullMarked;
