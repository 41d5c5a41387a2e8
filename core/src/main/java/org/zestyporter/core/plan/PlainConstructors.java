package org.zestyporter.core.plan;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import tools.jackson.databind.BeanDescription;
import tools.jackson.databind.DeserializationConfig;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.deser.ValueInstantiator;
import tools.jackson.databind.deser.ValueInstantiators;
import tools.jackson.databind.deser.std.StdValueInstantiator;

/**
 * Records are made by their constructors as they are. Method handles, which would be used instead,
 * have code made for each list of parameters: a tenth of the time that a command takes to begin.
 */
final class PlainConstructors extends ValueInstantiators.Base {
  @Override
  public ValueInstantiator modifyValueInstantiator(
      DeserializationConfig config,
      BeanDescription.Supplier described,
      ValueInstantiator instantiator) {
    return described.getBeanClass().isRecord() && instantiator instanceof StdValueInstantiator std
        ? new OfRecord(std)
        : instantiator;
  }

  private static final class OfRecord extends StdValueInstantiator {
    OfRecord(StdValueInstantiator usual) {
      super(usual);
    }

    @Override
    public Object createFromObjectWith(DeserializationContext context, Object[] values) {
      if (!(getWithArgsCreator().getAnnotated() instanceof Constructor<?> constructor)) {
        return super.createFromObjectWith(context, values);
      }
      try {
        return constructor.newInstance(values);
      } catch (InvocationTargetException | IllegalAccessException | InstantiationException e) {
        return context.handleInstantiationProblem(
            getValueClass(), values, rewrapCtorProblem(context, e));
      }
    }
  }
}
