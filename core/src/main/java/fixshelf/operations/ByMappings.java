package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Several columns, each by its own list of pairs, in one step.
final class ByMappings extends BuiltIn {
    static final Blank<Map<String, Map<String, @Nullable String>>> MAPPINGS = Blank.needed(
            "mappings",
            ValueKinds.MAPPINGS,
            "Columns, each with values and those that they become, or with {in: table, from: column, to: column}.");

    ByMappings() {
        super(
                "by_mappings",
                "Change values by {mappings}, others {others}",
                new Meaning(
                        "Replace the values of several columns in one step, each by its own mapping: codes and texts by their numbers, recode.",
                        "Missing stays missing.",
                        "An empty text can be a key.",
                        "Rows stay as they stand.",
                        "The first pair of a key counts.",
                        "Texts.",
                        "",
                        "unmatched: the rows with a value that is on no list of its column; where others stop, a run stops.",
                        "The same in all."),
                List.of(MAPPINGS, ByMapping.OTHERS, ByMapping.OTHERWISE),
                List.of(
                        new TableExample(
                                "Each by its own",
                                Table.of("a | b", "'m' | 'm'", "NULL | 'x'"),
                                "by_mappings: {a: {m: mended}, b: {m: minutes, x: none}}",
                                Table.of("a | b", "'mended' | 'minutes'", "NULL | 'none'")),
                        new TableExample(
                                "Others become missing",
                                Table.of("a | b", "'x' | 'q'", "'z' | 'p'"),
                                "by_mappings: {a: {x: '1', z: '2'}, b: {p: '7'}}\nothers: become_missing",
                                Table.of("a | b", "'1' | NULL", "'2' | '7'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Problem> problems = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        List<ByMapping.One> all = new ArrayList<>();
        given.get(MAPPINGS).forEach((name, pairs) -> {
            Optional<Field> column = column(name, given, problems);
            column.flatMap(ByMapping::refused).ifPresent(problems::add);
            column.ifPresent(c -> all.add(new ByMapping.One(c, pairs)));
        });
        ByMapping.refusedOtherwise(given).ifPresent(problems::add);
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Optional<Expr> otherwise = ByMapping.otherwise(given);
        all.forEach(one -> cells.add(one.cell(otherwise)));
        return new Resolution.Done(given.computed(cells), List.of(ByMapping.unmatched(given, all)));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
