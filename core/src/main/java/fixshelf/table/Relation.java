package fixshelf.table;

import fixshelf.language.tree.Expr;
import java.util.ArrayList;
import java.util.List;

/// A table worked out of others. All that an operation does is said with these kinds, and every language knows only
/// these. Relations are compared by identity: one that is used twice is worked out once.
public sealed interface Relation {
    Shape shape();

    /// The tables that it is worked out of.
    List<Relation> inputs();

    /// A table that comes from outside, with its rows numbered as they stand there.
    record Source(String name, Shape shape) implements Relation {
        @Override
        public List<Relation> inputs() {
            return List.of();
        }
    }

    /// What came out of a line, counted from 1.
    record Result(int line, Shape shape) implements Relation {
        @Override
        public List<Relation> inputs() {
            return List.of();
        }
    }

    /// The same rows with more cells, or others; each cell is worked out of the row as it was before.
    record Compute(Relation from, List<Computed> cells, Shape shape) implements Relation {
        public Compute(Relation from, List<Computed> cells) {
            this(
                    from,
                    List.copyOf(cells),
                    from.shape().with(cells.stream().map(Computed::made).toList()));
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// The same rows with these of their fields, in this order, under these names.
    record Pick(Relation from, Shape shape) implements Relation {
        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// The rows for which a condition is true; those for which it is false or unknown leave.
    record Keep(Relation from, Expr condition) implements Relation {
        @Override
        public Shape shape() {
            return from.shape();
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// The same rows in another order; equal ones stay as they stood.
    record Sort(Relation from, List<Sorted> by) implements Relation {
        public Sort {
            by = List.copyOf(by);
        }

        @Override
        public Shape shape() {
            return from.shape();
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// Of the rows that are equal in the keys the first one by an order; missing equals missing, the place decides
    /// between equal ones. The rows that stay keep their places.
    ///
    /// @param lastPlace whether of equal rows the one that stands last comes first
    record FirstOf(Relation from, List<Field> keys, List<Sorted> by, boolean lastPlace) implements Relation {
        public FirstOf {
            keys = List.copyOf(keys);
            by = List.copyOf(by);
        }

        @Override
        public Shape shape() {
            return from.shape();
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// The same rows with cells worked out of their neighbours, in parts of rows that are equal in `within`, in an
    /// order; equal ones go by place.
    ///
    /// @param backwards whether the order is taken from its end, places too
    record Window(
            Relation from, List<Windowed> made, List<Field> within, List<Sorted> by, boolean backwards, Shape shape)
            implements Relation {
        public Window(Relation from, List<Windowed> made, List<Field> within, List<Sorted> by, boolean backwards) {
            this(
                    from,
                    List.copyOf(made),
                    List.copyOf(within),
                    List.copyOf(by),
                    backwards,
                    from.shape().with(made.stream().map(Windowed::made).toList()));
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// One row for all that are equal in the keys, where missing equals missing; without keys one row, also of no
    /// rows. Groups stand in the order of their first rows.
    record Group(Relation from, List<Field> keys, List<Grouped> made) implements Relation {
        public Group {
            keys = List.copyOf(keys);
            made = List.copyOf(made);
        }

        @Override
        public Shape shape() {
            List<Field> fields = new ArrayList<>(keys);
            made.forEach(m -> fields.add(m.made()));
            return new Shape(fields);
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// Two fields of one type whose values meet when they are equal.
    ///
    /// @param missingMeets whether missing meets missing
    record Pair(Field left, Field right, boolean missingMeets) {}

    /// A field of the right side, and the one that it becomes.
    record Taken(Field field, Field made) {}

    /// What a join keeps.
    enum Meeting {
        /// Each pair of rows that meet.
        PAIRS,
        /// Each pair, and the left rows that meet none.
        ALL_LEFT,
        /// The left rows that meet any, once.
        WITH,
        /// The left rows that meet none.
        WITHOUT
    }

    /// The rows of two tables side by side, by left row, then by right row.
    ///
    /// @param taken of the right side; empty for [Meeting#WITH] and [Meeting#WITHOUT]
    record Join(Relation left, Relation right, List<Pair> on, Meeting meeting, List<Taken> taken, Shape shape)
            implements Relation {
        public Join(Relation left, Relation right, List<Pair> on, Meeting meeting, List<Taken> taken) {
            this(
                    left,
                    right,
                    List.copyOf(on),
                    meeting,
                    List.copyOf(taken),
                    left.shape().with(taken.stream().map(Taken::made).toList()));
        }

        @Override
        public List<Relation> inputs() {
            return List.of(left, right);
        }
    }

    /// The rows of tables of the same width one after another; the fields are those of the first.
    record Union(List<Relation> tables) implements Relation {
        public Union {
            tables = List.copyOf(tables);
        }

        @Override
        public Shape shape() {
            return tables.getFirst().shape();
        }

        @Override
        public List<Relation> inputs() {
            return tables;
        }
    }

    /// A row for each of several sets of fields, row by row, set by set; the fields of the sets are gone.
    ///
    /// @param sets each with one field for each of `values`
    /// @param names what stands in `name` for each set
    /// @param keepMissing whether a set whose values are all missing gives a row
    record Unpivot(
            Relation from,
            List<List<Field>> sets,
            List<String> names,
            Field name,
            List<Field> values,
            boolean keepMissing)
            implements Relation {
        public Unpivot {
            sets = sets.stream().map(List::copyOf).toList();
            names = List.copyOf(names);
            values = List.copyOf(values);
        }

        @Override
        public Shape shape() {
            List<Field> gone = sets.stream().flatMap(List::stream).toList();
            List<Field> fields = new ArrayList<>(from.shape().fields().stream()
                    .filter(f -> gone.stream().noneMatch(g -> g.id() == f.id()))
                    .toList());
            fields.add(name);
            fields.addAll(values);
            return new Shape(fields);
        }

        @Override
        public List<Relation> inputs() {
            return List.of(from);
        }
    }

    /// Itself and the tables that its rows come from, one out of another; the last is the one that it begins with.
    default List<Relation> rowsFrom() {
        List<Relation> from = new ArrayList<>(List.of(this));
        while (!from.getLast().inputs().isEmpty()) {
            from.add(from.getLast().inputs().getFirst());
        }
        return from;
    }

    /// Itself and all that it is worked out of, each once, inputs before what is made of them.
    default List<Relation> parts() {
        List<Relation> parts = new ArrayList<>();
        collect(parts);
        return parts;
    }

    private void collect(List<Relation> parts) {
        if (parts.stream().noneMatch(p -> p == this)) {
            inputs().forEach(i -> i.collect(parts));
            parts.add(this);
        }
    }
}
