package fixshelf.desktop.shelf;

import fixshelf.check.Bounds;
import fixshelf.check.CaseResult;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.language.tree.Printer;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// Type arguments, see the result at once, and copy the same call in any language.
public final class TryIt {
    private final Workbench workbench;
    private final FlowPane fields = new FlowPane(14, 8);
    private final Label result = Ui.wrapped("", "mono");
    private final ComboBox<String> languages = new ComboBox<>();
    private final List<TextField> inputs = new ArrayList<>();
    private final VBox view;
    private @Nullable FixPage page;

    TryIt(Workbench workbench) {
        this.workbench = workbench;
        Languages.ALL.forEach(l -> languages.getItems().add(l.title()));
        languages.getSelectionModel().selectFirst();
        languages.setAccessibleText("Language of the call to copy");
        Command copy = Command.of("Copy this call", "", this::copy);
        view = Ui.column(
                "try-it",
                Ui.label("Try it", "heading"),
                fields,
                result,
                Ui.row("state", Ui.button(copy), Ui.label("as", "soft"), languages));
        view.setSpacing(8);
    }

    Region view() {
        return view;
    }

    /// Shows a fix with the arguments of its first case.
    void show(FixPage shown) {
        boolean same = page != null
                && page.name().equals(shown.name())
                && page.parameters().size() == shown.parameters().size();
        page = shown;
        if (!same) {
            fields.getChildren().clear();
            inputs.clear();
            shown.parameters().forEach(p -> {
                TextField field = new TextField(start(shown, p));
                field.getStyleClass().add("mono");
                field.setPromptText(p.fallback().map(Printer::print).orElse("'…' or NULL"));
                field.setAccessibleText(p.name());
                field.setPrefColumnCount(
                        Math.max(16, Math.min(40, field.getText().length() + 2)));
                field.textProperty().addListener(_ -> run());
                inputs.add(field);
                fields.getChildren().add(new VBox(2, Ui.label(p.name(), "mono", "soft", "small"), field));
            });
        }
        run();
    }

    private static String start(FixPage page, Parameter parameter) {
        return page.cases().stream()
                .findFirst()
                .flatMap(c ->
                        Optional.ofNullable(c.arguments().get(parameter.name().toLowerCase(Locale.ROOT))))
                .map(v -> Literals.print(v.value()))
                .orElse("");
    }

    private Outcome<List<Expr.Literal>> arguments(Definition fix) {
        List<Expr.Literal> arguments = new ArrayList<>();
        for (int i = 0; i < fix.parameters().size(); i++) {
            Parameter parameter = fix.parameters().get(i);
            String typed = inputs.get(i).getText().strip();
            if (typed.isEmpty()) {
                arguments.add(parameter.fallback().orElse(new Expr.Literal(null, parameter.type())));
                continue;
            }
            Optional<Expr.Literal> literal =
                    WrittenConstants.read(parameter.name(), typed).value().flatMap(v -> v);
            if (literal.isEmpty() || !literal.get().type().fits(parameter.type())) {
                return Outcome.failed(Problem.about(
                        fixshelf.problem.Code.WRONG_TYPE,
                        parameter.name(),
                        parameter.name() + " is no constant of type "
                                + parameter.type().label() + ".",
                        "Texts are written in '…'."));
            }
            arguments.add(literal.get());
        }
        return Outcome.of(arguments);
    }

    private void run() {
        if (page == null) {
            return;
        }
        Outcome<Definition> definition = workbench.shelf().definition(page);
        Outcome<List<Expr.Literal>> arguments = definition.then(this::arguments);
        Ui.mark(result, "problem", !arguments.isPresent());
        if (!arguments.isPresent()) {
            result.setText(arguments.problems().getFirst().sentence());
            return;
        }
        workbench
                .background()
                .ask(
                        new Request("try", "trying it", 60),
                        () -> tried(definition.get(), arguments.get()),
                        said -> result.setText("→ " + said));
    }

    private static String tried(Definition fix, List<Expr.Literal> arguments) {
        FixEngine engine = FixEngines.ALL.getFirst();
        Answer answer = engine.run(List.of(new Answer.Evaluation(fix, List.of(arguments))))
                .getFirst()
                .getFirst();
        return Bounds.reached(engine, fix, arguments, answer)
                .map(Problem::sentence)
                .orElseGet(() -> shown(answer));
    }

    private static String shown(Answer answer) {
        return switch (answer) {
            case Answer.Value(Object value) -> value == null ? "missing (NULL)" : CaseResult.shown(value);
            case Answer.Failed(String why) -> why;
            case Answer.NotSaid(String why) -> why;
        };
    }

    private void copy() {
        Language language = Languages.ALL.get(languages.getSelectionModel().getSelectedIndex());
        Outcome<String> code = workbench
                .shelf()
                .definition(java.util.Objects.requireNonNull(page))
                .then(fix -> arguments(fix).then(a -> language.expression(Inliner.call(fix, List.copyOf(a)))));
        copyText(code.value().orElseGet(() -> code.problems().getFirst().sentence()));
    }

    public static void copyText(String text) {
        ClipboardContent content = new ClipboardContent();
        content.putString(text);
        Clipboard.getSystemClipboard().setContent(content);
    }
}
