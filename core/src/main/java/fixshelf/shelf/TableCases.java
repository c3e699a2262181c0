package fixshelf.shelf;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Amounts;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// Reads the cases of a table fix or a loader: small tables below a heading of the third level. A case with a problem
/// is left out.
final class TableCases {
    /// The tables of a case that are not those of parameters.
    private static final Set<String> LABELS = Set.of("with", "given", "reads", "gives", "stops");

    private static final Pattern TYPED = Pattern.compile("(.*?):\\s+(.+)");

    private final SourceText source;
    private final boolean loads;
    private final List<Problem> problems;

    TableCases(SourceText source, boolean loads, List<Problem> problems) {
        this.source = source;
        this.loads = loads;
        this.problems = problems;
    }

    List<TableExample> read(String fix, PageText text, List<Blank<?>> parameters) {
        List<TableExample> cases = new ArrayList<>();
        Set<String> titles = new HashSet<>();
        for (PageText.CaseText each : text.tableCases()) {
            int before = problems.size();
            if (!titles.add(each.title())) {
                report(each.span(), "There is a case " + each.title() + " already.", "Give this one another title.");
            }
            each.odd()
                    .forEach(t -> report(
                            t.span(),
                            "It is not said which table of the case this is, or there is one already.",
                            "Write one line above it: with, given, gives, stops, or the name of another table."));
            each.tables().forEach(this::wantTable);
            Optional<PageText.Table> given = Optional.ofNullable(each.tables().get("given"));
            Optional<PageText.Table> gives = Optional.ofNullable(each.tables().get("gives"));
            Optional<PageText.Table> stops = Optional.ofNullable(each.tables().get("stops"));
            Optional<PageText.Table> reads =
                    Optional.ofNullable(each.tables().get("reads")).filter(_ -> loads);
            if (given.isPresent() == reads.isPresent() || gives.isPresent() == stops.isPresent()) {
                problems.add(Problem.error(
                        Code.BAD_CASE,
                        new Problem.Where(source, each.span()),
                        gives.isPresent() && stops.isPresent()
                                ? "The case " + each.title() + " gives a table and stops."
                                : given.isPresent() && reads.isPresent()
                                        ? "The case " + each.title() + " reads a file, and is given a table."
                                        : "The case " + each.title() + " lacks a table.",
                        "Write `given`" + (loads ? ", or `reads` with a file below `cases/`," : ",")
                                + " and `gives` or `stops`, each with a table below."));
                continue;
            }
            Map<String, TableExample.Table> others = new LinkedHashMap<>();
            each.tables().forEach((label, table) -> {
                if (!LABELS.contains(label)) {
                    others.put(label, table(table));
                }
            });
            if (problems.size() > before) {
                continue;
            }
            String call = call(fix, each, parameters);
            if (problems.size() > before) {
                continue;
            }
            cases.add(new TableExample(
                    each.title(),
                    given.map(TableCases::table).orElse(NOTHING),
                    others,
                    call,
                    gives.map(TableCases::table).orElse(NOTHING),
                    stops.map(this::words).orElse(""),
                    reads.map(this::file).orElse(""),
                    Optional.empty()));
        }
        return cases;
    }

    private static final TableExample.Table NOTHING = new TableExample.Table(List.of(), List.of());

    /// The file that stands for what the first line reads: a table of one cell, `file`.
    private String file(PageText.Table reads) {
        List<PageText.Cell> cells =
                reads.rows().stream().flatMap(r -> r.cells().stream()).toList();
        String file =
                cells.isEmpty() ? "" : cells.getFirst().text().replace("'", "").strip();
        if (cells.size() != 1 || !file.startsWith("cases/") || file.contains("..")) {
            problems.add(Problem.error(
                    Code.BAD_CASE,
                    new Problem.Where(source, reads.heading().span()),
                    "What a case reads is one file of the folder `cases` beside its page.",
                    "Write `file` as the heading, and cases/name.csv, say, below it."));
        }
        return file;
    }

    /// The words of the problem that a case ends in: a table of one cell.
    private String words(PageText.Table stops) {
        String text = stops.rows().stream()
                .flatMap(r -> r.cells().stream())
                .map(PageText.Cell::text)
                .collect(Collectors.joining(" "))
                .strip();
        String plain = text.length() > 1 && text.startsWith("'") && text.endsWith("'")
                ? text.substring(1, text.length() - 1).replace("''", "'")
                : text;
        if (plain.isBlank()) {
            problems.add(Problem.error(
                    Code.BAD_CASE,
                    new Problem.Where(source, stops.heading().span()),
                    "A case that stops says in which problem.",
                    "Write words of it in the row below `problem`."));
        }
        return plain.isBlank() ? "a problem" : plain;
    }

    /// The call of a case, as a line of a job.
    private String call(String fix, PageText.CaseText each, List<Blank<?>> parameters) {
        Map<String, Written> arguments = new LinkedHashMap<>();
        PageText.Table with = each.tables().get("with");
        if (with != null && !with.rows().isEmpty()) {
            for (int i = 0; i < with.heading().cells().size(); i++) {
                String name = with.heading().cells().get(i).text();
                PageText.Cell cell = with.rows().getFirst().cells().get(i);
                Outcome<Written> typed = parameters.stream()
                        .filter(p -> p.name().equals(name))
                        .findFirst()
                        .map(p -> p.kind().typed(cell.text()))
                        .orElse(Outcome.of(Written.word(cell.text())));
                typed.problems()
                        .forEach(p -> problems.add(Problem.error(
                                Code.BAD_CASE, new Problem.Where(source, cell.span()), p.what(), p.todo())));
                typed.value().ifPresent(w -> arguments.put(name, w));
            }
        }
        return YamlText.scalar(fix) + ": " + YamlText.written(new Written.Fields(arguments));
    }

    /// A heading says `name` or `name: type`.
    private static TableExample.Table table(PageText.Table table) {
        List<String> heading = table.heading().cells().stream()
                .map(c -> c.text().replaceFirst(":\\s+", " "))
                .toList();
        List<List<String>> rows = table.rows().stream()
                .map(r -> r.cells().stream().map(PageText.Cell::text).toList())
                .toList();
        return new TableExample.Table(heading, rows);
    }

    /// The tables that hold arguments or words, and no constants.
    private static final Set<String> BARE = Set.of("with", "reads", "stops");

    /// A table has a name for each column, as many cells in each row, and in these constants of the column's type.
    private void wantTable(String label, PageText.Table table) {
        List<Optional<Type>> types = new ArrayList<>();
        Set<String> names = new HashSet<>();
        for (PageText.Cell cell : table.heading().cells()) {
            Matcher typed = TYPED.matcher(cell.text());
            boolean states = typed.matches() && !BARE.contains(label);
            String name = states ? typed.group(1) : cell.text();
            types.add(states ? Type.parse(typed.group(2)) : Optional.empty());
            if (name.isBlank() || !names.add(name.toLowerCase(Locale.ROOT))) {
                report(
                        cell.span(),
                        name.isBlank() ? "A column has no name." : "The column " + name + " stands twice.",
                        name.isBlank() ? "Name it." : "Remove one.");
            }
            if (states && types.getLast().filter(t -> !t.isFixed()).isEmpty()) {
                report(
                        cell.span(),
                        "There is no type " + typed.group(2) + ".",
                        "Write text, integer, decimal(12,2), number, boolean, date or timestamp.");
            }
        }
        for (PageText.Row row : table.rows()) {
            if (row.cells().size() != types.size()) {
                report(
                        row.span(),
                        "This row has " + Amounts.of(row.cells().size(), "cell") + ", the heading has " + types.size()
                                + ".",
                        "Fill it up with NULL between | and |; write \\| for a | in a text.");
            } else if (!BARE.contains(label)) {
                for (int i = 0; i < types.size(); i++) {
                    wantConstant(row.cells().get(i), types.get(i));
                }
            }
        }
    }

    private void wantConstant(PageText.Cell cell, Optional<Type> type) {
        Optional<Expr.Literal> value =
                WrittenConstants.read("cell", cell.text()).value().flatMap(v -> v);
        if (value.isEmpty() || value.get().type().isFixed()) {
            report(
                    cell.span(),
                    "This is not a constant.",
                    "Texts are written in '…', numbers and days as 12.5 and DATE '2026-02-07', missing is NULL.");
        } else if (type.isPresent() && !Constants.fits(value.get(), type.get())) {
            report(
                    cell.span(),
                    "This is " + value.get().type().label() + ", asked for is "
                            + type.get().label() + ".",
                    "Change the value or the type.");
        }
    }

    private void report(Span span, String what, String todo) {
        problems.add(Problem.error(Code.BAD_CASE, new Problem.Where(source, span), what, todo));
    }
}
