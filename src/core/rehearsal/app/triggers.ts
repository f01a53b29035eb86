import type { Trigger } from './model.js';

const names = (text: string): readonly string[] => text.trim().split(/\s+/);

/**
 * Methods that a system or a framework calls by itself, and when. Sources: developer.android.com, "Activity lifecycle",
 * "Fragment lifecycle", RecyclerView.Adapter; Apple, UIViewController, UIApplicationDelegate, UITableViewDataSource;
 * docs.flutter.dev, State; react.dev, Component and useEffect; docs.unity3d.com, "Order of execution for event
 * functions"; learn.microsoft.com, ".NET MAUI app lifecycle" and Page.
 */
const called: readonly (readonly [Trigger, readonly string[]])[] = [
  ['launch', names('main CreateMauiApp didFinishLaunchingWithOptions applicationDidFinishLaunching')],
  [
    'return',
    names(`onResume onStart onRestart onWindowFocusChanged viewWillAppear viewDidAppear
      applicationDidBecomeActive applicationWillEnterForeground sceneDidBecomeActive sceneWillEnterForeground
      OnApplicationFocus OnApplicationPause OnEnable OnAppearing OnNavigatedTo OnResume OnActivated OnResumed
      didChangeAppLifecycleState didPopNext useFocusEffect AppState.change`),
  ],
  [
    'row',
    names(`onBindViewHolder getView cellForRowAt cellForItemAt tableView collectionView itemBuilder
      renderItem OnBindingContextChanged`),
  ],
  [
    'leave',
    names(`onDestroy onDestroyView onPause onStop onDetachedFromWindow viewWillDisappear viewDidDisappear deinit
      dispose cleanup componentWillUnmount OnDestroy OnDisable OnDisappearing OnNavigatedFrom OnUnloaded Dispose`),
  ],
  [
    'open',
    names(`onCreate onCreateView onViewCreated onAttach onAttachedToWindow onFinishInflate loadView viewDidLoad
      awakeFromNib initState didChangeDependencies build constructor init useEffect useLayoutEffect
      componentDidMount render Awake Start OnCreate OnLoaded OnHandlerChanged body onAppear`),
  ],
];
const byMethod = new Map(called.flatMap(([trigger, all]) => all.map((name) => [name, trigger] as const)));

export interface Callbacks {
  loaded?: string | undefined;
  failed?: string | undefined;
  /** The callbacks by which other networks of the app say that they have no ad. */
  othersFailed?: readonly string[];
  closed?: string | undefined;
  /** The callback of the start-up call. */
  started?: string | undefined;
}

/**
 * Returns what makes a call run, from the methods around it, the outermost first. Undefined where only the app's own code
 * calls these methods.
 */
export function triggerOf(methods: readonly string[], callbacks: Callbacks): Trigger | undefined {
  const own = new Map<string | undefined, Trigger>([
    [callbacks.started, 'started'],
    [callbacks.loaded, 'loaded'],
    [callbacks.failed, 'retry'],
    [callbacks.closed, 'closed'],
  ]);
  own.delete(undefined);
  for (const name of callbacks.othersFailed ?? []) if (!own.has(name)) own.set(name, 'failed');
  for (const method of [...methods].reverse()) {
    const found = own.get(method) ?? byMethod.get(method);
    if (found) return found;
  }
  // Directly in a class or a component: it runs as that is made.
  return methods.length === 0 ? 'open' : undefined;
}
