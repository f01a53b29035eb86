/**
 * The order in which a framework calls the methods of one object. Sources: developer.android.com "Activity lifecycle" and
 * "Fragment lifecycle"; Apple, UIViewController; docs.flutter.dev, State; docs.unity3d.com, "Order of execution for event
 * functions"; react.dev, Component; learn.microsoft.com, ".NET MAUI app lifecycle".
 */
const orders: readonly (readonly string[])[] = [
  [
    'attachBaseContext',
    'onCreate',
    'onStart',
    'onPostCreate',
    'onResume',
    'onPostResume',
    'onAttachedToWindow',
  ],
  ['onAttach', 'onCreate', 'onCreateView', 'onViewCreated', 'onStart', 'onResume'],
  ['loadView', 'viewDidLoad', 'viewWillAppear', 'viewIsAppearing', 'viewDidAppear'],
  ['initState', 'didChangeDependencies', 'build', 'dispose'],
  ['Awake', 'OnEnable', 'Start', 'FixedUpdate', 'Update', 'LateUpdate'],
  ['constructor', 'render', 'componentDidMount', 'componentDidUpdate'],
  ['OnCreate', 'OnStart', 'OnResume'],
  ['OnAppearing', 'OnNavigatedTo'],
];

/** Whether a framework calls one method of an object later than another for the first time. */
export function isCalledLater(method: string, than: string): boolean {
  return orders.some((order) => {
    const [first, second] = [order.indexOf(than), order.indexOf(method)];
    return first >= 0 && second > first;
  });
}
