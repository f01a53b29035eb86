/** The XML namespaces of Android's manifests and resources. */
export const androidNamespace = 'http://schemas.android.com/apk/res/android';
export const appNamespace = 'http://schemas.android.com/apk/res-auto';
export const toolsNamespace = 'http://schemas.android.com/tools';
