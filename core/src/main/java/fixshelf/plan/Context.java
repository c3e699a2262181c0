package fixshelf.plan;

import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// What stands around a line: the table before it, and all that it may name.
///
/// @param before the table that the line works on
/// @param parameters those of the job with their values, which expressions may name
/// @param names what expressions may name instead of the columns, inside of a table fix
/// @param it the type of a value of the columns that the line is about, for expressions over it
public record Context(
        Relation before,
        Scope.Fixes fixes,
        Map<String, Expr.Literal> parameters,
        Sources sources,
        Ids ids,
        Optional<Map<String, Expr>> names,
        Type it) {
    public Context(
            Relation before,
            Scope.Fixes fixes,
            Map<String, Expr.Literal> parameters,
            Sources sources,
            Ids ids,
            Optional<Map<String, Expr>> names) {
        this(before, fixes, parameters, sources, ids, names, Type.TEXT);
    }

    /// The same where the line is about columns; their type is that of a value, if they have one type.
    Context about(List<Field> columns) {
        long types = columns.stream().map(Field::type).distinct().count();
        return types == 1
                ? new Context(
                        before,
                        fixes,
                        parameters,
                        sources,
                        ids,
                        names,
                        columns.getFirst().type())
                : this;
    }

    public Context(Relation before, Scope.Fixes fixes, Map<String, Expr.Literal> parameters, Sources sources, Ids ids) {
        this(before, fixes, parameters, sources, ids, Optional.empty());
    }

    /// Other tables by their names.
    public interface Sources {
        Sources NONE = new Sources() {
            @Override
            public Outcome<Relation> find(String name, Ids ids) {
                return Outcome.failed(fixshelf.problem.Problem.about(
                        fixshelf.problem.Code.NO_SUCH, name, "There is no table " + name + " here.", "Name another."));
            }

            @Override
            public List<String> names() {
                return List.of();
            }

            @Override
            public Outcome<Map<String, @Nullable String>> pairs(String source, String from, String to) {
                return find(source, new Ids(0)).map(_ -> Map.of());
            }
        };

        /// The table, with fields of new numbers.
        Outcome<Relation> find(String name, Ids ids);

        List<String> names();

        /// What a loader gives with these arguments, with fields of new numbers.
        default Outcome<Relation> call(Line loader, Ids ids) {
            return Outcome.failed(fixshelf.problem.Problem.about(
                    fixshelf.problem.Code.BAD_FIELD,
                    loader.call(),
                    loader.call() + " is a loader, and no table can be read here.",
                    "Call it in a line of a job, or give it a page of a dataset, with `load: " + loader.call() + "`."));
        }

        /// The table after a line above that has this name.
        default Optional<Relation> line(String name) {
            return Optional.empty();
        }

        /// Two columns of a dataset as pairs, in the order of its rows. Rows without a key say nothing; a key with two
        /// values is a problem.
        Outcome<Map<String, @Nullable String>> pairs(String source, String from, String to);
    }

    /// Gives numbers to new fields; the same line gives the same ones again.
    public static final class Ids {
        private int next;

        public Ids(int line) {
            next = line * 1_000_000;
        }

        public int next() {
            return next++;
        }
    }

    public List<Field> fields() {
        return before.shape().fields();
    }
}
