package fixshelf.plan;

import fixshelf.problem.Problem;
import fixshelf.table.Relation;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// All that is known of an operation on a table. What is built in stands in one list; each value fix is one too.
public interface Operation {
    /// The word that calls it on a page.
    String name();

    /// What it is called where people read it.
    default String shown() {
        return name();
    }

    /// What it does, with `{blank}` for its blanks: `Keep rows where {where}`.
    String sentence();

    Meaning about();

    /// Its blanks; the first is the one whose value stands behind its name on a page.
    List<Blank<?>> blanks();

    List<TableExample> examples();

    /// What a call means. The blanks are read and typed already.
    Resolution resolve(Given given);

    /// Whether a value that it makes missing is a loss, for which a line can be strict.
    default boolean losesValues() {
        return false;
    }

    /// The blanks that have a meaning beside those that are filled in a line already.
    default List<Blank<?>> blanksBeside(Line line) {
        return blanks();
    }

    default Optional<Blank<?>> blank(String name) {
        return blanks().stream().filter(b -> b.name().equals(name)).findFirst();
    }

    /// What came of resolving a call.
    sealed interface Resolution {
        /// The table afterwards, and what is told beside it.
        ///
        /// @param guard what has to hold before any row is made
        record Done(Relation after, List<Report> reports, Optional<Guard> guard) implements Resolution {
            public Done(Relation after) {
                this(after, List.of());
            }

            public Done(Relation after, List<Report> reports) {
                this(after, reports, Optional.empty());
            }
        }

        /// What it means depends on the data: on these rows, which are few.
        record Asks(Relation about, Function<List<List<@Nullable Object>>, Resolution> then) implements Resolution {}

        /// Why it means nothing here. The places of the problems do not matter.
        record Refused(List<Problem> why) implements Resolution {}
    }

    /// How many rows a line may make.
    ///
    /// @param rows a table with one whole number, how many rows there will be; missing for none
    /// @param times how many times as many as there were are too many
    record Guard(Relation rows, long times) {}

    /// A table worked out beside a line.
    ///
    /// @param name by which it is looked at and saved
    /// @param words what its rows are, after their number: `rows without a match`
    /// @param breaks whether a run stops where it has any row
    /// @param dear whether it costs more than the line itself, so that a run does not count it; it is worked out
    /// when it
    /// is looked at or written
    record Report(String name, Relation relation, String words, boolean breaks, boolean dear) {
        /// The rows without a match.
        public static final String WITHOUT_MATCH = "without_match";

        /// Their different keys.
        public static final String UNMATCHED_KEYS = "unmatched_keys";

        /// The rows that match several.
        public static final String AMBIGUOUS = "ambiguous";

        /// The rows of the other table that match none.
        public static final String UNUSED = "unused";

        public Report(String name, Relation relation, String words) {
            this(name, relation, words, false);
        }

        public Report(String name, Relation relation, String words, boolean breaks) {
            this(
                    name,
                    relation,
                    words,
                    breaks,
                    !breaks && relation.parts().stream().anyMatch(Relation.Window.class::isInstance));
        }
    }
}
