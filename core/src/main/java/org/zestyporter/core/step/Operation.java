package org.zestyporter.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * All there is to say of one kind of step: how it is shown, what it may be set to, what it does,
 * and which settings are worth trying for values in trouble.
 */
abstract class Operation {
  private final Group group;
  private final String title;
  private final String help;
  private final List<Setting> settings;

  /**
   * @param help what it does, to be read after the title
   */
  Operation(Group group, String title, String help, Setting... settings) {
    this.group = group;
    this.title = title;
    this.help = help;
    this.settings = List.of(settings);
  }

  final Group group() {
    return group;
  }

  final String title() {
    return title;
  }

  final String help() {
    return help;
  }

  final List<Setting> settings() {
    return settings;
  }

  /**
   * What a step of this kind does.
   *
   * @param step its settings are each usable by themselves
   * @throws PorterException if they don't go together, or name what there is not
   */
  abstract StepFunction compile(Step step, Names names);

  /** Settings that are worth trying, the likeliest first. */
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of());
  }

  /** True if it may free a value from trouble by losing a part of it. */
  boolean losesParts() {
    return group == Group.PARTS;
  }

  /** True if a step of this kind takes the file's own order of day and month. */
  boolean followsDateOrder(Step step) {
    return false;
  }

  /** True if a step of this kind takes the file's own decimal sign. */
  boolean followsDecimal(Step step) {
    return settings.stream().anyMatch(s -> s.name().equals("decimal"))
        && step.setting("decimal") == null;
  }

  /** A mistake in the settings that shows only when they are seen together. */
  final PorterException refused(String mistake) {
    return ErrorCode.STEP_SETTINGS.error(title + ": " + mistake + ".");
  }

  /** Index of the column that a setting names. */
  static int column(Step step, Names names) {
    String title = step.setting("column");
    int index = names.column(title);
    if (index < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error(
          "The file has no column “" + title + "”, which a step reads.");
    }
    return index;
  }

  /** The same setting with each of several values. */
  static List<Map<String, String>> each(String setting, List<String> values) {
    return values.stream().map(v -> Map.of(setting, v)).toList();
  }

  /** The same setting with each of several values, after leaving it open. */
  static List<Map<String, String>> openAndEach(String setting, List<String> values) {
    List<Map<String, String>> all = new ArrayList<>(List.of(Map.of()));
    all.addAll(each(setting, values));
    return all;
  }
}
