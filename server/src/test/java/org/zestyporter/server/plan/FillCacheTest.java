package org.zestyporter.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Phrases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

class FillCacheTest {
  private static final FieldInfo NAME = FieldInfo.of("name", FieldType.TEXT).withLength(5);
  private static final TableInfo BOAT =
      new TableInfo(null, "boat", null, List.of(NAME), List.of(), List.of());
  private static final Fill FILL = Fill.of("name", Origin.column("Name"), Step.of(StepKind.TRIM));

  private final FillCache cache = new FillCache(java.time.Clock.systemUTC());
  private final AtomicInteger compiled = new AtomicInteger();
  @TempDir Path folder;
  private SourceTable rows;

  @BeforeEach
  void open() throws IOException {
    Path file = folder.resolve("a.csv");
    Files.writeString(file, "Name;Kind\nWren;a\nGrey Heron;b\nGrey Heron;c\n");
    rows = SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  @AfterEach
  void close() {
    rows.close();
  }

  private FillCache.Key key(SourceTable table, Fill fill, long words) {
    return new FillCache.Key(table, fill, List.of("marina", "boat"), List.of(words), "odile");
  }

  private final Function<FillCache.Key, CompiledFill> compile =
      key -> {
        compiled.incrementAndGet();
        RunContext context = new RunContext("odile", LocalDateTime.MIN, "a.csv");
        return new FillCompiler(name -> BOAT, rows, context, Phrases.NONE)
            .compile(key.fill(), NAME, BOAT);
      };

  @Test
  void aFillIsCompiledAndCountedOnce() {
    FillCache.Entry first = cache.get(key(rows, FILL, 1), compile);
    assertThat(first.counts().troubledRows()).isEqualTo(2);
    assertThat(first.counts()).isSameAs(first.counts());
    assertThat(
            cache.get(key(rows, Fill.of("name", FILL.origin(), FILL.steps().get(0)), 1), compile))
        .as("an equal fill is the same")
        .isSameAs(first);
    assertThat(compiled).hasValue(1);
  }

  @Test
  void whateverItDependsOnMakesItAnother() {
    cache.get(key(rows, FILL, 1), compile);
    cache.get(key(rows, FILL, 2), compile);
    assertThat(compiled).as("a phrasebook has changed").hasValue(2);
    cache.get(key(rows, FILL.withSteps(List.of()), 2), compile);
    assertThat(compiled).as("a step has gone").hasValue(3);
    cache.forget();
    cache.get(key(rows, FILL, 2), compile);
    assertThat(compiled).as("the records have changed").hasValue(4);
  }

  @Test
  void correctedRowsAreTheSameTableEachTime() {
    List<Correction> corrections = List.of(new Correction(3, "Name", "Grey Heron", "Heron"));
    SourceTable corrected = cache.corrected(rows, corrections);
    assertThat(corrected)
        .isNotSameAs(rows)
        .isSameAs(cache.corrected(rows, List.copyOf(corrections)));
    assertThat(cache.corrected(rows, List.of())).isSameAs(rows);
    assertThat(cache.get(key(corrected, FILL, 1), compile).counts().troubledRows()).isEqualTo(1);
  }
}
