package fixshelf.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Datasets;
import fixshelf.work.ReadRows;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Places outside of a shelf, which it may read from where that was allowed, and nowhere else.
class PlacesTest {
    @TempDir
    Path folder;

    @BeforeEach
    void write() throws Exception {
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Places\n");
        Files.createDirectories(folder.resolve("datasets"));
    }

    @AfterEach
    void takeBack() throws Exception {
        for (Consent.Place place : Consent.of(folder)) {
            Consent.takeBack(folder, place);
        }
    }

    @Test
    void aFileOutsideOfTheShelfIsAskedForOnce(@TempDir Path other) throws Exception {
        Files.writeString(other.resolve("a.csv"), "x\n1\n");
        Files.createDirectories(folder.resolve("data"));
        Files.createSymbolicLink(folder.resolve("data/link.csv"), other.resolve("a.csv"));
        for (String path : List.of(
                other.resolve("a.csv").toString(),
                "../" + other.getFileName() + "/a.csv",
                "data/link.csv",
                "data/li*.csv")) {
            Files.writeString(folder.resolve("datasets/visits.yaml"), "dataset: visits\nread: \"" + path + "\"\n");
            Shelf shelf = ShelfReader.read(folder).get();
            assertThat(Datasets.open(shelf, "visits").problems())
                    .singleElement()
                    .satisfies(p -> assertThat(p.code()).isEqualTo(Code.NOT_ALLOWED));
            Consent.keep(folder, Consent.Place.of(other.toString()));
            assertThat(ReadRows.withoutNames(Datasets.open(shelf, "visits"))).endsWith("1");
            Consent.takeBack(folder, Consent.Place.of(other.toString()));
        }
    }

    @Test
    void placesAreThoseThatAUserMeans(@TempDir Path other) throws Exception {
        Path file = Files.writeString(other.resolve("a.csv"), "x\n1\n");
        Consent.Place inside =
                Consent.Place.of(folder, other.resolve("deep/b.csv")).orElseThrow();
        // A folder, a file for its folder, with signs that lead there.
        for (String typed : List.of(other.toString(), file.toString(), other + "/deep/..", other + "/")) {
            Consent.keep(folder, Consent.Place.of(typed));
            assertThat(Consent.isGiven(folder, inside)).as(typed).isTrue();
            assertThat(Consent.isGiven(folder, inside.toWrite())).as(typed).isFalse();
            assertThat(Consent.isGiven(other, Consent.Place.of("/nowhere"))).isFalse();
            Consent.takeBack(folder, Consent.Place.of(typed));
            assertThat(Consent.isGiven(folder, inside)).as(typed).isFalse();
        }
        // A host with or without its port, and no other that begins so.
        Consent.keep(folder, Consent.Place.of("DB.example"));
        assertThat(Consent.isGiven(folder, Consent.Place.host("db.example", 5432)))
                .isTrue();
        assertThat(Consent.isGiven(folder, Consent.Place.host("db.example.com", 5432)))
                .isFalse();
        assertThat(Consent.isGiven(
                        folder, Consent.Place.host("db.example", 5432).toWrite()))
                .isFalse();
        assertThat(Consent.isGiven(other, Consent.Place.host("db.example", 5432)))
                .as("another shelf")
                .isFalse();
    }
}
