package org.zestyporter.server.web;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.OriginForm;

/** The OpenAPI document, from which the interface's types are generated. */
@Configuration(proxyBeanMethods = false)
class ApiDocument {

  static {
    // an origin is written in a form of its own
    SpringDocUtils.getConfig().replaceWithClass(Origin.class, OriginForm.class);
  }

  @Bean
  OpenAPI openApi() {
    return new OpenAPI().info(new Info().title("Zesty Porter").version("1"));
  }

  /** A record's components are always there unless they are marked as nullable. */
  @Bean
  ModelConverter requiredComponents() {
    return new ModelConverter() {
      @Override
      public Schema<?> resolve(
          AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        Schema<?> schema = chain.hasNext() ? chain.next().resolve(type, context, chain) : null;
        JavaType javaType =
            type.getType() == null ? null : Json.mapper().constructType(type.getType());
        if (javaType != null && javaType.getRawClass().isRecord()) {
          require(javaType.getRawClass(), schema, context);
        }
        return schema;
      }
    };
  }

  private static void require(
      Class<?> type, @Nullable Schema<?> schema, ModelConverterContext context) {
    Schema<?> model = schema;
    if (schema != null && schema.get$ref() != null) {
      String name = schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1);
      model = context.getDefinedModels().get(name);
    }
    if (model == null || model.getProperties() == null) {
      return;
    }
    List<String> required = new ArrayList<>();
    for (RecordComponent component : type.getRecordComponents()) {
      boolean nullable =
          component.getAnnotatedType().isAnnotationPresent(Nullable.class)
              || component.isAnnotationPresent(Nullable.class);
      String name = jsonName(component);
      if (!nullable && model.getProperties().containsKey(name)) {
        required.add(name);
      }
    }
    model.setRequired(required);
  }

  private static String jsonName(RecordComponent component) {
    com.fasterxml.jackson.annotation.JsonProperty named =
        component.getAccessor().getAnnotation(com.fasterxml.jackson.annotation.JsonProperty.class);
    return named == null ? component.getName() : named.value();
  }
}
