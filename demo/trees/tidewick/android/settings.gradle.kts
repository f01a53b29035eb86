pluginManagement {
    repositories {
        google()
        mavenCentral()
        gradlePluginPortal()
    }
}

dependencyResolutionManagement {
    repositoriesMode.set(RepositoriesMode.FAIL_ON_PROJECT_REPOS)
    repositories {
        google()
        mavenCentral()
        maven { url = uri("https://maven.cobaltheron.example/release") }
        maven { url = uri("https://repo.marlstone.example/android") }
    }
}

rootProject.name = "Tidewick"
include(":app")
