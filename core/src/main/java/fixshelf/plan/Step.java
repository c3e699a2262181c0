package fixshelf.plan;

import fixshelf.language.Body;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// A resolved line: what an engine does, and the columns that come out of it.
public sealed interface Step {
    List<Column> columns();

    /// The source as it is read.
    record Read(ReadOptions options, List<Column> columns) implements Step {
        public Read {
            columns = List.copyOf(columns);
        }
    }

    /// New values in place of the old ones; rows and columns stay.
    ///
    /// @param lost what happens where a value becomes missing
    record Compute(List<Computed> computed, Line.Lost lost, List<Column> columns) implements Step {
        public Compute {
            computed = List.copyOf(computed);
            columns = List.copyOf(columns);
        }
    }

    /// The new value of a column, as a call of a fix; its names are the columns before the step.
    record Computed(String column, Expr.FixCall call) {
        /// The call with the fix written out.
        public Expr value() {
            return Inliner.call(call.fix(), call.arguments());
        }

        /// For which rows the fix makes the value missing on purpose.
        public Optional<Expr> onPurpose() {
            return call.fix()
                    .makesMissing()
                    .map(condition -> Inliner.call(
                            new Definition(
                                    call.fix().name(),
                                    call.fix().parameters(),
                                    Type.BOOLEAN,
                                    new Body(List.of(), condition)),
                            call.arguments()));
        }
    }

    /// One row of each group stays; depends on the order of rows.
    record KeepOne(List<String> keys, Line.Keep keep, List<String> order, List<Column> columns) implements Step {
        public KeepOne {
            keys = List.copyOf(keys);
            order = List.copyOf(order);
            columns = List.copyOf(columns);
        }
    }

    /// Columns chosen and renamed; rows stay.
    record Project(List<Kept> kept, List<Column> columns) implements Step {
        public Project {
            kept = List.copyOf(kept);
            columns = List.copyOf(columns);
        }
    }

    /// A column that goes on, with the name it had.
    record Kept(String was, String name) {}
}
