package fixshelf.plan;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.checking.TypeChecks;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A value fix as an operation: its result in place of the values of some columns, or in new ones.
///
/// @param said what the fix says of itself; its first parameter is the columns
public record FixOperation(Definition fix, String said) implements Operation {
    static final Blank<List<Field>> COLUMNS =
            Blank.needed("columns", ColumnKinds.COLUMNS, "The columns whose values go through the fix.");
    static final Blank<List<String>> INTO = Blank.optional(
            "into",
            ColumnKinds.NEW_NAMES,
            "New columns that take the results, one for each; else the same columns do.");

    @Override
    public String name() {
        return fix.name();
    }

    /// The blank that no other parameter fills stands for the columns: the last one, if there are several.
    @Override
    public String sentence() {
        String text = said.isBlank() ? fix.name().replace('_', ' ') + " in {}" : said;
        List<String> others =
                fix.parameters().stream().skip(1).map(Parameter::name).toList();
        List<String> pieces = new ArrayList<>(List.of(text.split("(?=\\{)|(?<=})")));
        for (int i = pieces.size() - 1; i >= 0; i--) {
            String piece = pieces.get(i);
            boolean blank = piece.startsWith("{") && piece.endsWith("}");
            if (blank && !others.contains(piece.substring(1, piece.length() - 1))) {
                pieces.set(i, "{columns}");
                return String.join("", pieces);
            }
        }
        return text + " in {columns}";
    }

    @Override
    public Meaning about() {
        return new Meaning("", "", "", "Rows stay as they stand.", "", fix.signature(), "", "", "");
    }

    @Override
    public List<Blank<?>> blanks() {
        List<Blank<?>> blanks = new ArrayList<>(List.of(COLUMNS));
        fix.parameters().stream().skip(1).forEach(p -> blanks.add(blank(p)));
        blanks.add(INTO);
        blanks.add(Absent.BLANK);
        return blanks;
    }

    private static Blank<Expr> blank(Parameter parameter) {
        return new Blank<>(
                parameter.name(),
                new ArgumentKind(parameter),
                Optional.empty(),
                parameter.fallback().isEmpty(),
                parameter.about());
    }

    @Override
    public List<TableExample> examples() {
        return List.of();
    }

    @Override
    public boolean losesValues() {
        return true;
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = fitting(given);
        List<String> into = given.find(INTO).orElse(List.of());
        if (fix.parameters().isEmpty()) {
            return Given.refused(Code.ARGUMENTS, fix.name() + " takes no value.", "Name another fix.");
        }
        if (!into.isEmpty() && into.size() != columns.size()) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "There are " + columns.size() + " columns, and " + into.size() + " new names.",
                    "Give one new name for each column.");
        }
        List<Problem> problems = new ArrayList<>();
        into.forEach(n -> given.meets(n).ifPresent(problems::add));
        List<Computed> cells = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            Field column = columns.get(i);
            Optional<Problem> wrong = misfit(column);
            wrong.ifPresent(problems::add);
            if (wrong.isEmpty()) {
                Expr.FixCall call = call(column, given);
                Field made = into.isEmpty() ? column.typed(fix.returns()) : given.field(into.get(i), fix.returns());
                problems.addAll(i == 0 ? ArgumentKind.constants(Inliner.call(fix, call.arguments())) : List.of());
                cells.add(new Computed(made, call, onPurpose(call)));
            }
        }
        return problems.isEmpty() ? new Resolution.Done(given.computed(cells)) : new Resolution.Refused(problems);
    }

    /// The columns: where they are chosen by what they are, those of other types are passed over, unless none fits.
    private List<Field> fitting(Given given) {
        List<Field> all = given.get(COLUMNS);
        if (fix.parameters().isEmpty()
                || given.written(COLUMNS.name()).filter(ColumnKinds::isRule).isEmpty()) {
            return all;
        }
        List<Field> fitting = all.stream().filter(f -> misfit(f).isEmpty()).toList();
        return fitting.isEmpty() ? all : fitting;
    }

    private Optional<Problem> misfit(Field column) {
        Type wanted = fix.parameters().getFirst().type();
        boolean fits = column.type().fits(wanted)
                || wanted instanceof Type.Decimal && column.type().isNumeric();
        return fits
                ? Optional.empty()
                : Optional.of(Given.problem(
                        Code.WRONG_TYPE,
                        fix.name() + " takes " + wanted.label() + ", and " + column.name() + " is "
                                + column.type().label() + ".",
                        TypeChecks.hint(column.type(), wanted)));
    }

    private Expr.FixCall call(Field column, Given given) {
        List<Expr> arguments = new ArrayList<>();
        arguments.add(
                Arithmetic.held(column.value(), fix.parameters().getFirst().type()));
        fix.parameters().stream().skip(1).forEach(p -> arguments.add(ArgumentKind.value(p, given.find(blank(p)))));
        return new Expr.FixCall(fix, arguments);
    }

    private Optional<Expr> onPurpose(Expr.FixCall call) {
        return fix.makesMissing()
                .map(condition -> Inliner.call(
                        new Definition(fix.name(), fix.parameters(), Type.BOOLEAN, new Body(List.of(), condition)),
                        call.arguments()));
    }
}
