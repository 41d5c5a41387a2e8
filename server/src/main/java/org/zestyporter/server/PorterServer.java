package org.zestyporter.server;

import org.apache.ibatis.annotations.Mapper;
import org.mybatis.spring.annotation.MapperScan;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The server: storage, HTTP interface, sign-in and jobs around the core. */
@SpringBootApplication
@MapperScan(annotationClass = Mapper.class)
@EnableConfigurationProperties(Settings.class)
@EnableScheduling
public class PorterServer {}
