package fixshelf.shelf;

import fixshelf.language.tree.Names;
import fixshelf.language.tree.Parameter;
import fixshelf.operations.Operations;
import fixshelf.plan.ArgumentKind;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.InBraces;
import fixshelf.plan.Kind;
import fixshelf.plan.Line;
import fixshelf.plan.TableFix;
import fixshelf.plan.ValueKinds;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Reads the page of a table fix or a loader: fields, prose, one block of lines fenced as `yaml`, and cases as pairs of
/// small tables.
public final class TableFixPages {
    private static final Set<String> FIELDS =
            Set.of("fix", "kind", "version", "reads", "tags", "parameters", "promises", "returns");

    private final SourceText source;
    private final List<Problem> problems = new ArrayList<>();

    private final boolean loads;

    private TableFixPages(SourceText source) {
        this.source = source;
        this.loads = saysKind(source, "loader");
    }

    /// Whether a page says that it is a table fix or a loader.
    public static boolean isTableFix(SourceText source) {
        return saysKind(source, "table|loader");
    }

    private static boolean saysKind(SourceText source, String kinds) {
        return source.text().lines().limit(60).anyMatch(l -> l.strip().matches("kind:\\s*(" + kinds + ")"));
    }

    public static TableFixPage read(Path file, SourceText source) {
        return new TableFixPages(source).page(file);
    }

    private TableFixPage page(Path file) {
        PageText text = PageText.of(source);
        Span front = text.front().orElse(new Span(0, 0));
        Optional<Yaml.Fields> fields = Yaml.read(source, front, problems);
        fields.ifPresent(f -> f.allowPage(FIELDS));
        String fallback = file.getFileName().toString().replaceFirst("\\.fix\\.md$", "");
        String name = fields.flatMap(f -> f.text("fix")).orElse(fallback);
        fields.ifPresent(f -> wantName(f, name));
        List<Blank<?>> parameters = fields.flatMap(f -> f.fields("parameters"))
                .map(this::parameters)
                .orElse(List.of());
        List<JobPage.PlacedLine> all = lines(text);
        Optional<JobPage.PlacedLine> read = loads ? Optional.of(read(all)) : Optional.empty();
        List<JobPage.PlacedLine> lines = loads && !all.isEmpty() ? all.subList(1, all.size()) : all;
        fields.ifPresent(
                f -> wantParameters(f, parameters.stream().map(Blank::name).toList()));
        fields.filter(f -> !loads && f.has("returns"))
                .ifPresent(f -> f.report(
                        Code.BAD_FIELD,
                        f.spanOfField("returns"),
                        "Only a loader says what it returns.",
                        "Leave it out."));
        return new TableFixPage(
                file,
                source,
                name,
                fields.map(f -> f.text("version", "0.1.0")).orElse("0.1.0"),
                fields.map(f -> f.text("reads", "")).orElse(""),
                text.title().orElse(name.replace('_', ' ')),
                prose(text),
                parameters,
                read,
                lines,
                fields.map(this::returns).orElse(List.of()),
                new TableCases(source, loads, problems).read(loads ? TableFix.linesOf(name) : name, text, parameters),
                fields.map(this::promises).orElse(List.of()),
                problems,
                false);
    }

    /// The first line of a loader; where it does not read, one that reads nothing stands for it.
    private JobPage.PlacedLine read(List<JobPage.PlacedLine> lines) {
        Optional<JobPage.PlacedLine> first =
                lines.stream().findFirst().filter(l -> l.line().isRead());
        if (first.isEmpty()) {
            problems.add(Problem.error(
                    Code.BAD_FIELD,
                    new Problem.Where(
                            source,
                            lines.isEmpty() ? new Span(0, 0) : lines.getFirst().span()),
                    "The first line of a loader reads something.",
                    "Begin with `- read: {file: \"{data}/{name}.csv\"}`, or what else it reads."));
        }
        return first.orElse(new JobPage.PlacedLine(Line.readDataset(""), "", new Span(0, 0)));
    }

    /// `name`, or `name type`, of each column that a loader gives.
    private List<Column> returns(Yaml.Fields fields) {
        List<Column> columns = new ArrayList<>();
        for (String written : fields.texts("returns")) {
            int blank = written.strip().lastIndexOf(' ');
            Optional<Type> type =
                    blank < 0 ? Optional.empty() : Type.parse(written.strip().substring(blank + 1));
            String name = type.isPresent() ? written.strip().substring(0, blank).strip() : written.strip();
            columns.add(new Column(name, type.orElse(Type.TEXT)));
        }
        return columns;
    }

    private String prose(PageText text) {
        Span span = text.tableProse();
        return source.text().substring(span.start(), span.end()).strip();
    }

    private void wantName(Yaml.Fields fields, String name) {
        fields.wantName("fix", name, "Write labels_from_below, say.");
        if (Operations.find(name).isPresent()) {
            fields.report(
                    Code.NAME_CLASH,
                    fields.spanOfValue("fix"),
                    name + " is an operation already.",
                    "Choose another name.");
        }
    }

    private List<Blank<?>> parameters(Yaml.Fields all) {
        List<Blank<?>> blanks = new ArrayList<>();
        for (String name : all.names()) {
            Names.problemWith(name)
                    .ifPresent(why -> all.report(Code.BAD_FIELD, all.spanOfField(name), why, "Write amount, say."));
            all.fields(name).ifPresent(f -> blanks.add(blank(name, f)));
        }
        return blanks;
    }

    private Blank<?> blank(String name, Yaml.Fields fields) {
        fields.allow(Set.of("type", "default", "about"));
        Kind<?> kind = kind(name, fields.text("type", "text"), fields);
        if (loads && !(kind instanceof ArgumentKind(Parameter p) && isSimple(p.type()))) {
            fields.report(
                    Code.WRONG_TYPE,
                    fields.spanOfValue("type"),
                    "A loader has no table before it, and takes single values.",
                    "Write text, integer, decimal(9,2), date, timestamp or boolean.");
            kind = ofValue(name, Type.TEXT);
        }
        Optional<Written> fallback = fields.written("default");
        return new Blank<>(name, kind, fallback, fallback.isEmpty(), fields.text("about", ""));
    }

    private static boolean isSimple(Type type) {
        return !(type instanceof Type.ListOf) && !(type instanceof Type.Mapping);
    }

    private static Kind<?> kind(String name, String type, Yaml.Fields fields) {
        return kind(name, type).orElseGet(() -> {
            fields.report(
                    Code.WRONG_TYPE,
                    fields.spanOfValue("type"),
                    "There is no such type.",
                    "Known: column, columns, new name, order, condition, table, and the types of values.");
            return ofValue(name, Type.TEXT);
        });
    }

    /// What a parameter of a type takes; empty where there is no such type.
    static Optional<Kind<?>> kind(String name, String type) {
        return switch (type.strip()) {
            case "column", "column of text" -> Optional.of(ColumnKinds.COLUMN);
            case "columns", "columns of text" -> Optional.of(ColumnKinds.COLUMNS);
            case "new name" -> Optional.of(ColumnKinds.NEW_NAME);
            case "order" -> Optional.of(ColumnKinds.ORDER);
            case "condition" -> Optional.of(ExpressionKinds.CONDITION);
            case "table" -> Optional.of(ValueKinds.SOURCE);
            default -> Type.parse(type).map(t -> ofValue(name, t));
        };
    }

    private static Kind<?> ofValue(String name, Type type) {
        return new ArgumentKind(new Parameter(name, type, Optional.empty(), "", false));
    }

    /// The types of the parameters as they are written on a page.
    static Map<String, String> types(SourceText source) {
        Map<String, String> types = new LinkedHashMap<>();
        Yaml.read(source, PageText.of(source).front().orElse(new Span(0, 0)), new ArrayList<>())
                .flatMap(f -> f.fields("parameters"))
                .ifPresent(all -> all.names()
                        .forEach(
                                n -> all.fields(n).flatMap(f -> f.text("type")).ifPresent(type -> types.put(n, type))));
        return types;
    }

    private List<JobPage.PlacedLine> lines(PageText text) {
        List<Span> bodies = text.bodies("yaml");
        if (bodies.size() != 1) {
            problems.add(Problem.error(
                    bodies.isEmpty() ? Code.NO_BODY : Code.TWO_BODIES,
                    new Problem.Where(source, bodies.isEmpty() ? new Span(0, 0) : bodies.get(1)),
                    bodies.isEmpty() ? "This page has no lines." : "This page has two blocks of lines.",
                    "Write one block fenced as yaml, with a line of a job at each dash."));
        }
        List<JobPage.PlacedLine> lines = bodies.stream()
                .findFirst()
                .map(b -> Yaml.list(source, b, problems, LineFields::read))
                .orElse(List.of());
        lines.stream()
                .filter(l -> l.line().strict())
                .forEach(l -> problems.add(Problem.error(
                        Code.BAD_FIELD,
                        new Problem.Where(source, l.span()),
                        "A line of a page that is called cannot stop a run by itself.",
                        "Write `strict: true` where it is called, or make sure of something: make_sure_filled.")));
        Set<String> names = new HashSet<>();
        lines.stream()
                .filter(l -> !l.line().name().isEmpty() && !names.add(l.line().name()))
                .forEach(l -> problems.add(Problem.error(
                        Code.NAME_CLASH,
                        new Problem.Where(source, l.span()),
                        "There is a line " + l.line().name() + " already.",
                        "Give this line another name.")));
        return lines;
    }

    private List<TablePromise> promises(Yaml.Fields fields) {
        List<TablePromise> promises = new ArrayList<>();
        for (String written : fields.texts("promises")) {
            TablePromise.read(written)
                    .ifPresentOrElse(
                            promises::add,
                            () -> fields.report(
                                    Code.BAD_FIELD,
                                    fields.spanOfValue("promises"),
                                    "This is no promise of a table fix: " + written + ".",
                                    "Known: " + TablePromise.known() + "."));
        }
        return promises;
    }

    /// The sentence of a fix speaks of its parameters only.
    static void wantParameters(Yaml.Fields fields, List<String> parameters) {
        for (String name : InBraces.names(fields.text("reads", ""))) {
            if (!parameters.contains(name)) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfValue("reads"),
                        "There is no parameter " + name + ".",
                        Names.suggest(name, parameters, "Parameters: " + String.join(", ", parameters) + "."));
            }
        }
    }
}
