package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.engine.FixEngine.Presence;
import fixshelf.engine.FixEngines;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

@Command(
        name = "engines",
        mixinStandardHelpOptions = true,
        description = "List the query languages, which of them can be run here, and how to get the others.")
final class EnginesCommand implements Callable<Integer> {
    @Option(names = "--json", description = "Print one JSON document, for machines.")
    boolean json;

    @Spec
    CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() {
        ObjectNode document = Output.object();
        List<List<String>> rows = new ArrayList<>();
        for (Language language : Languages.ALL) {
            Presence presence = FixEngines.of(language).orElseThrow().presence();
            String where = !language.isRunHere() ? "not run here" : presence.isHere() ? "here" : "not here";
            rows.add(List.of(language.id(), language.title(), where));
            rows.add(List.of("", presence.sentence()));
            document.withArray("languages")
                    .addObject()
                    .put("id", language.id())
                    .put("title", language.title())
                    .put("here", presence.isHere())
                    .put("about", presence.sentence());
        }
        if (json) {
            Output.json(spec.commandLine().getOut(), document);
            return Output.FINE;
        }
        for (List<String> row : rows) {
            spec.commandLine()
                    .getOut()
                    .println(
                            row.size() == 2
                                    ? "            " + row.get(1)
                                    : String.format("%-12s%-18s%s", row.get(0), row.get(1), row.get(2)));
        }
        return Output.FINE;
    }
}
