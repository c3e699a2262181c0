package fixshelf.shelf;

import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.CollectionNode;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/// Reads YAML with the place of every value, and collects what is wrong with it.
final class Yaml {
    private final SourceText source;
    private final int base;
    private final String text;
    private final List<Problem> problems;

    private Yaml(SourceText source, Span span, List<Problem> problems) {
        this.source = source;
        this.base = span.start();
        this.text = source.text().substring(span.start(), span.end());
        this.problems = problems;
    }

    /// The mapping that stands at `span`; empty, with a problem, when there is none.
    static Optional<Fields> read(SourceText source, Span span, List<Problem> problems) {
        Yaml yaml = new Yaml(source, span, problems);
        if (yaml.isTooDeep()) {
            yaml.report(
                    Code.TOO_DEEP,
                    new Span(span.start(), span.start()),
                    "These fields are nested too deeply.",
                    "A page nests its fields three or four deep.");
            return Optional.empty();
        }
        try {
            Optional<Node> root =
                    new Compose(LoadSettings.builder().setLabel("page").build()).composeString(yaml.text);
            if (root.isPresent() && root.get() instanceof MappingNode mapping) {
                return Optional.of(yaml.new Fields(mapping));
            }
            yaml.report(Code.BROKEN_YAML, span, "Here should be fields, as `name: value`.", "Write one field a line.");
        } catch (MarkedYamlEngineException e) {
            yaml.report(e, span);
        } catch (YamlEngineException e) {
            YamlWords words = YamlWords.of(e.getMessage(), null);
            yaml.report(Code.BROKEN_YAML, span, "This is not YAML: " + words.what(), words.todo());
        }
        return Optional.empty();
    }

    /// The entries of the list that stands at `span`, each read by `reader`.
    static <T> List<T> list(
            SourceText source, Span span, List<Problem> problems, Function<Fields, Optional<T>> reader) {
        Yaml yaml = new Yaml(source, span, problems);
        List<T> all = new ArrayList<>();
        try {
            Optional<Node> root = yaml.isTooDeep()
                    ? Optional.empty()
                    : new Compose(LoadSettings.builder().setLabel("page").build()).composeString(yaml.text);
            if (root.isPresent() && root.get() instanceof SequenceNode list) {
                for (Node element : list.getValue()) {
                    if (element instanceof MappingNode mapping) {
                        reader.apply(yaml.new Fields(mapping)).ifPresent(all::add);
                    } else {
                        yaml.report(Code.BAD_FIELD, yaml.spanOf(element), "A line is a field.", "Write `- drop: [a]`.");
                    }
                }
            } else {
                yaml.report(Code.BROKEN_YAML, span, "Here should be a list of lines.", "Begin each with `- `.");
            }
        } catch (MarkedYamlEngineException e) {
            yaml.report(e, span);
        }
        return all;
    }

    private void report(MarkedYamlEngineException e, Span span) {
        YamlWords words = YamlWords.of(e.getProblem(), e.getContext());
        Optional<Mark> mark = words.atStart() ? e.getContextMark().or(e::getProblemMark) : e.getProblemMark();
        report(
                Code.BROKEN_YAML,
                mark.map(this::spanOf).orElse(span),
                "This is not YAML: " + words.what(),
                words.todo());
    }

    private static final int DEEPEST = 60;
    /// What `format` of a page may say.
    private static final List<String> READ_FORMATS = List.of("1", "2");

    /// Whether anything stands in more than so many lists and fields: in brackets, behind dashes, or by its indent.
    private boolean isTooDeep() {
        int open = 0;
        int deepest = 0;
        for (String line : text.lines().toList()) {
            int dashes = 0;
            int at = 0;
            while (at < line.length()
                    && (line.charAt(at) == ' ' || line.startsWith("- ", at) || line.startsWith("? ", at))) {
                dashes += line.charAt(at) == ' ' ? 0 : 1;
                at++;
            }
            deepest = Math.max(deepest, Math.max(dashes, at / 2));
        }
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            open += c == '[' || c == '{' ? 1 : c == ']' || c == '}' ? -1 : 0;
            deepest = Math.max(deepest, open);
        }
        return deepest > DEEPEST;
    }

    private int offset(Mark mark) {
        return base + text.offsetByCodePoints(0, Math.min(mark.getIndex(), text.codePointCount(0, text.length())));
    }

    private Span spanOf(Mark mark) {
        int at = offset(mark);
        return new Span(at, Math.min(at + 1, source.text().length()));
    }

    private Span spanOf(Node node) {
        int start = node.getStartMark().map(this::offset).orElse(base);
        return new Span(start, Math.max(start, endOf(node)));
    }

    /// Where the last sign of a node stands; a block would otherwise end at the next one, after blanks and comments.
    private int endOf(Node node) {
        boolean block = node instanceof CollectionNode<?> c && c.getFlowStyle() == FlowStyle.BLOCK;
        Optional<Node> last = Optional.empty();
        if (block && node instanceof SequenceNode list && !list.getValue().isEmpty()) {
            last = Optional.of(list.getValue().getLast());
        } else if (block
                && node instanceof MappingNode mapping
                && !mapping.getValue().isEmpty()) {
            last = Optional.of(mapping.getValue().getLast().getValueNode());
        }
        if (last.isPresent()) {
            return endOf(last.get());
        }
        int start = node.getStartMark().map(this::offset).orElse(base);
        int end = node.getEndMark().map(this::offset).orElse(start);
        while (end > start && Character.isWhitespace(source.text().charAt(end - 1))) {
            end--;
        }
        return end;
    }

    private static Written written(Node node) {
        return switch (node) {
            case SequenceNode list ->
                new Written.Items(list.getValue().stream().map(Yaml::written).toList());
            case MappingNode mapping -> {
                Map<String, Written> fields = new LinkedHashMap<>();
                mapping.getValue()
                        .forEach(t -> fields.put(
                                t.getKeyNode() instanceof ScalarNode key ? key.getValue() : "",
                                written(t.getValueNode())));
                yield new Written.Fields(fields);
            }
            case ScalarNode scalar -> Written.word(scalar.getValue());
            default -> Written.word("");
        };
    }

    private void report(Code code, Span span, String what, String todo) {
        problems.add(Problem.error(code, new Where(source, span), what, todo));
    }

    /// The fields of a mapping, each asked for once by its name.
    final class Fields {
        private final Map<String, NodeTuple> tuples = new LinkedHashMap<>();
        private final Span span;

        Fields(MappingNode node) {
            span = spanOf(node);
            for (NodeTuple tuple : node.getValue()) {
                if (!(tuple.getKeyNode() instanceof ScalarNode key)) {
                    report(
                            Code.BAD_FIELD,
                            spanOf(tuple.getKeyNode()),
                            "A field name is a word.",
                            "Write `name: value`.");
                } else if (tuples.putIfAbsent(key.getValue(), tuple) != null) {
                    report(
                            Code.DUPLICATE_NAME,
                            spanOf(key),
                            "The field " + key.getValue() + " stands twice.",
                            "Remove one.");
                }
            }
        }

        Span span() {
            return span;
        }

        boolean has(String name) {
            return tuples.containsKey(name);
        }

        Set<String> names() {
            return tuples.keySet();
        }

        /// Reports fields that have no meaning here.
        /// As [#allow], of a whole page, which may say which format of pages it is written in.
        void allowPage(Set<String> known) {
            Set<String> all = new HashSet<>(known);
            all.add("format");
            allow(all);
            if (has("format") && !READ_FORMATS.contains(text("format", ""))) {
                report(
                        Code.BAD_FIELD,
                        spanOfValue("format"),
                        "This page is written in a format of pages that this version does not read.",
                        "It reads format " + String.join(" and ", READ_FORMATS) + ". Read it with a newer version, or"
                                + " leave the field out where nothing on the page is new.");
            }
        }

        void allow(Set<String> known) {
            for (Map.Entry<String, NodeTuple> entry : tuples.entrySet()) {
                if (!known.contains(entry.getKey())) {
                    report(
                            Code.BAD_FIELD,
                            spanOf(entry.getValue().getKeyNode()),
                            "There is no field " + entry.getKey() + " here.",
                            fixshelf.language.tree.Names.suggest(
                                    entry.getKey(),
                                    known,
                                    "Known: "
                                            + String.join(
                                                    ", ",
                                                    known.stream().sorted().toList()) + "."));
                }
            }
        }

        /// The place of the value, or of the whole mapping when there is no such field.
        Span spanOfValue(String name) {
            return has(name) ? spanOf(tuples.get(name).getValueNode()) : span;
        }

        /// The place of the name and the value together.
        Span spanOfField(String name) {
            return has(name) ? spanOf(tuples.get(name).getKeyNode()).cover(spanOfValue(name)) : span;
        }

        Optional<String> text(String name) {
            return Optional.ofNullable(tuples.get(name))
                    .map(NodeTuple::getValueNode)
                    .flatMap(n -> scalar(n, name));
        }

        String text(String name, String fallback) {
            return text(name).orElse(fallback);
        }

        String required(String name, String todo) {
            Optional<String> value = text(name).filter(v -> !v.isBlank());
            if (value.isEmpty()) {
                report(
                        Code.BAD_FIELD,
                        new Span(span.start(), span.start()),
                        "The field " + name + " is missing.",
                        todo);
            }
            return value.orElse("");
        }

        /// One of these words; the first where it is left out.
        String choice(String name, List<String> words) {
            String value = text(name, words.getFirst());
            if (!words.contains(value)) {
                String last = words.getLast();
                String known = String.join(", ", words.subList(0, words.size() - 1)) + " or " + last;
                report(Code.BAD_FIELD, spanOfValue(name), name + " is " + known + ".", "Write one of them.");
            }
            return value;
        }

        boolean flag(String name, boolean fallback) {
            Optional<String> value = text(name);
            if (value.isPresent() && !Set.of("true", "false").contains(value.get())) {
                report(Code.BAD_FIELD, spanOfValue(name), name + " is true or false.", "Write true or false.");
            }
            return value.map("true"::equals).orElse(fallback);
        }

        /// A list of words; a single word counts as a list of one.
        List<String> texts(String name) {
            if (!has(name)) {
                return List.of();
            }
            Node node = tuples.get(name).getValueNode();
            if (node instanceof SequenceNode list) {
                return list.getValue().stream()
                        .flatMap(n -> scalar(n, name).stream())
                        .toList();
            }
            return scalar(node, name).map(List::of).orElse(List.of());
        }

        /// Pairs of words in the author's order.
        Map<String, String> pairs(String name) {
            Map<String, String> pairs = new LinkedHashMap<>();
            fields(name).ifPresent(f -> f.names().forEach(n -> f.text(n).ifPresent(v -> pairs.put(n, v))));
            return pairs;
        }

        /// What stands in a field, whatever it is.
        Optional<Written> written(String name) {
            return Optional.ofNullable(tuples.get(name)).map(t -> Yaml.written(t.getValueNode()));
        }

        Optional<Fields> fields(String name) {
            return has(name) ? mapping(tuples.get(name).getValueNode(), name) : Optional.empty();
        }

        boolean isMapping(String name) {
            return has(name) && tuples.get(name).getValueNode() instanceof MappingNode;
        }

        /// Each element of a list of mappings, changed by `reader`.
        <T> List<T> each(String name, Function<Fields, Optional<T>> reader) {
            if (!has(name)) {
                return List.of();
            }
            Node node = tuples.get(name).getValueNode();
            if (node instanceof ScalarNode scalar && scalar.getValue().isBlank()) {
                return List.of();
            }
            if (!(node instanceof SequenceNode list)) {
                report(Code.BAD_FIELD, spanOf(node), name + " is a list.", "Begin each entry with `- `.");
                return List.of();
            }
            List<T> all = new ArrayList<>();
            for (Node element : list.getValue()) {
                mapping(element, name).flatMap(reader).ifPresent(all::add);
            }
            return all;
        }

        private Optional<Fields> mapping(Node node, String name) {
            if (node instanceof MappingNode mapping) {
                return Optional.of(new Fields(mapping));
            }
            report(Code.BAD_FIELD, spanOf(node), "Under " + name + " there should be fields.", "Write `name: value`.");
            return Optional.empty();
        }

        private Optional<String> scalar(Node node, String name) {
            if (node instanceof ScalarNode scalar) {
                return Optional.of(scalar.getValue());
            }
            report(Code.BAD_FIELD, spanOf(node), name + " is a single value.", "Write `" + name + ": value`.");
            return Optional.empty();
        }

        /// Reports a name that cannot stand in code and in names of files.
        void wantName(String field, String name, String example) {
            fixshelf.language.tree.Names.problemWith(name)
                    .ifPresent(why -> report(Code.BAD_FIELD, spanOfValue(field), why, example));
        }

        void report(Code code, Span at, String what, String todo) {
            Yaml.this.report(code, at, what, todo);
        }

        Where where() {
            return new Where(source, span);
        }
    }
}
