#import "GeneratedPluginRegistrant.h"
