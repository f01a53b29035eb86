package example.saltmarsh.plumebook

import io.flutter.embedding.android.FlutterActivity

class MainActivity : FlutterActivity()
