package fixshelf.shelf;

import java.util.LinkedHashMap;
import java.util.Map;

/// The pages of a new shelf: one of each kind, so that a job runs at once and shows how they belong together.
final class FirstPages {
    private FirstPages() {}

    /// What every shelf has.
    static Map<String, String> settings(String name) {
        Map<String, String> pages = new LinkedHashMap<>();
        pages.put(ShelfReader.SETTINGS, "shelf: " + YamlText.scalar(name) + "\n" + """
                null_words: [""]
                environment: dev
                environments:
                  dev: {data: data, out: out}
                """);
        pages.put(".gitignore", ".fixshelf/\nout/\n");
        return pages;
    }

    /// The texts by their places in the shelf.
    static Map<String, String> all(String name) {
        Map<String, String> pages = settings(name);
        pages.put("data/first-visits.csv", """
                visit,item,place
                1,"  brass  lamp ",Alder Quay
                2,kettle , Upper  Sallow
                3,radio,
                """);
        pages.put("datasets/first_visits.yaml", """
                dataset: first_visits
                about: Three made-up visits, to begin with. Put your own file in their place.
                read: "{data}/first-visits.csv"
                """);
        pages.put("fixes/tidy_spaces.fix.md", """
                ---
                fix: tidy_spaces
                kind: value
                version: 1.0.0
                reads: tidy the spaces in {text}
                parameters:
                  text: {type: text, about: The text to tidy.}
                returns: text
                tags: [text]
                promises: [idempotent, null_only_from_null]
                ---
                # Tidy spaces

                Turns every run of spaces into one, and drops those at both ends.

                ```sql
                RETURN trim(regexp_replace(text, ' +', ' '));
                ```

                ## Cases

                | text | result |
                |---|---|
                | '  brass  lamp ' | 'brass lamp' |
                | 'radio' | 'radio' |
                | '' | '' |
                | NULL | NULL |
                """);
        pages.put("jobs/first_job.yaml", """
                job: first_job
                title: First job
                about: Tidies the first visits. Change it as you like.
                lines:
                  - dataset: first_visits
                  - fix: tidy_spaces
                    columns: [item, place]
                    reason: People type spaces that nobody sees.
                outputs:
                  - write: "{out}/first_visits.csv"
                    replace: true
                """);
        return pages;
    }
}
