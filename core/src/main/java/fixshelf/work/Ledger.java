package fixshelf.work;

import java.util.List;
import java.util.Optional;

/// What became of every row that was read: left, merged into groups, multiplied, added or still there. It adds up.
///
/// @param job whose ledger it is
/// @param before that of the job or the loader whose result it reads, where it reads one
/// @param read the rows of the source
/// @param entries a line each that does anything with rows
/// @param out the rows that come out
/// @param branches the ends of branches that the result does not go back to
/// @param others the tables that lines take in beside the one that is read
/// @param written what its outputs hold
public record Ledger(
        String job,
        Optional<Ledger> before,
        long read,
        List<Entry> entries,
        long out,
        List<Branch> branches,
        List<Other> others,
        List<Written> written) {
    public Ledger {
        entries = List.copyOf(entries);
        branches = List.copyOf(branches);
        others = List.copyOf(others);
        written = List.copyOf(written);
    }

    /// The end of a branch: the number of its last line, and its rows.
    public record Branch(int line, long rows) {}

    /// What a line did with rows.
    ///
    /// @param line its number
    /// @param change by how many rows the table became longer or shorter
    /// @param words what happened to them
    public record Entry(int line, long change, String words) {}

    /// Another table that a line takes in, and where its rows went.
    ///
    /// @param line the number of the line
    /// @param name what the line calls it
    /// @param parts its rows in parts, each with what became of it
    public record Other(int line, String name, List<Part> parts) {
        public Other {
            parts = List.copyOf(parts);
        }

        /// How many rows it has.
        public long rows() {
            return parts.stream().mapToLong(Part::rows).sum();
        }
    }

    /// Some rows of another table: how many, and what they did.
    public record Part(long rows, String words) {}

    /// What an output holds.
    ///
    /// @param place where it is written
    /// @param rows how many rows that are
    /// @param what the rows: `the result`, or a line or report
    public record Written(String place, long rows, String what) {}

    /// Whether what was read, with all that happened, is what comes out; so of the job before it.
    public boolean addsUp() {
        return read + entries.stream().mapToLong(Entry::change).sum() == out
                && before.stream().allMatch(b -> b.addsUp() && b.out() == read);
    }
}
