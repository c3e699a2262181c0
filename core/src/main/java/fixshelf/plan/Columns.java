package fixshelf.plan;

import java.util.List;

/// Which columns a line works on.
public sealed interface Columns {
    /// The named ones, in that order.
    record Named(List<String> names) implements Columns {
        public Named {
            names = List.copyOf(names);
        }
    }

    /// Every column that holds text at that line.
    record EveryText() implements Columns {}

    /// Every column that holds text, but for the named ones.
    record AllBut(List<String> names) implements Columns {
        public AllBut {
            names = List.copyOf(names);
        }
    }

    /// As it is read in a sentence: `every text column`, `item, mender`, `every text column but visit_no`.
    default String sentence() {
        return switch (this) {
            case Named(List<String> names) -> String.join(", ", names);
            case EveryText() -> "every text column";
            case AllBut(List<String> names) -> "every text column but " + String.join(", ", names);
        };
    }
}
