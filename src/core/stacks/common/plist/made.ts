/** The lines before and behind the entries of a property list that wiring makes. */
export const madeHead = [
  '<?xml version="1.0" encoding="UTF-8"?>',
  '<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">',
  '<plist version="1.0">',
  '<dict>',
];
export const madeTail = ['</dict>', '</plist>'];
