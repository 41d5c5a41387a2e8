package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.zestyporter.core.source.parse.NoteCode;
import org.zestyporter.core.value.ColumnProfile.FindingCode;

class WarningCodeTest {

  @ParameterizedTest
  @EnumSource
  void whatAProfileFindsHasAWord(FindingCode found) {
    assertThat(WarningCode.of(found).word()).isEqualTo(found.word());
  }

  @ParameterizedTest
  @EnumSource
  void whatAParserNotesHasAWord(NoteCode noted) {
    assertThat(WarningCode.of(noted).word()).isEqualTo(noted.word());
  }
}
