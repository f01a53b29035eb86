import { csharpText } from '../../../languages/csharp/placebook.js';
import { stepCalls } from '../survey/build-steps.js';
import { chosen, type StepsContents } from './steps-contents.js';

/** The calls after the Xcode project is generated. */
export function iosCalls(list: boolean, flags: boolean): string[] {
  return [
    '#if UNITY_IOS',
    '        if (report.summary.platform == BuildTarget.iOS)',
    '        {',
    ...(list
      ? ['            ChangePropertyList(Path.Combine(report.summary.outputPath, "Info.plist"));']
      : []),
    ...(flags ? ['            ChangeProject(report.summary.outputPath);'] : []),
    '        }',
    '#endif',
  ];
}

/** The methods that change the Xcode project, and its property list. */
export function iosMethods(steps: StepsContents, list: boolean): string[] {
  const { texts, entries, attribution, linkerFlags } = steps;
  return [
    ...(list ? listMethod(steps) : []),
    ...(texts.length > 0 ? textMethod : []),
    ...(entries.length > 0 ? entryMethod : []),
    ...(attribution.length > 0 ? attributionMethod : []),
    ...(linkerFlags.length > 0
      ? [
          '',
          '    private static void ChangeProject(string folder)',
          '    {',
          '        var path = PBXProject.GetPBXProjectPath(folder);',
          '        var project = new PBXProject();',
          '        project.ReadFromFile(path);',
          '        var target = project.GetUnityFrameworkTargetGuid();',
          ...linkerFlags.map(
            (flag) => `        project.AddBuildProperty(target, "OTHER_LDFLAGS", ${csharpText(flag)});`,
          ),
          '        project.WriteToFile(path);',
          '    }',
        ]
      : []),
  ];
}

function listMethod({ keys, texts, entries, attribution }: StepsContents): string[] {
  return [
    '',
    '    private static void ChangePropertyList(string path)',
    '    {',
    '        var list = new PlistDocument();',
    '        list.ReadFromFile(path);',
    ...keys.map(({ key, value }) =>
      typeof value === 'boolean'
        ? `        list.root.SetBoolean(${csharpText(key)}, ${value});`
        : `        list.root.SetString(${csharpText(key)}, ${chosen(value)});`,
    ),
    ...texts.map(
      ({ key, value }) => `        ${stepCalls.text}(${csharpText(key)}, ${csharpText(value)}, list.root);`,
    ),
    ...entries.map(({ way, type, value }) => {
      const given = [type, value, ...way].map(csharpText).join(', ');
      return `        ${stepCalls.entry}(list.root, ${given});`;
    }),
    ...attribution.map((id) => `        ${stepCalls.attribution}(${csharpText(id)}, list.root);`),
    '        list.WriteToFile(path);',
    '    }',
  ];
}

const textMethod = [
  '',
  `    private static void ${stepCalls.text}(string key, string value, PlistElementDict root)`,
  '    {',
  '        var held = root[key] as PlistElementString;',
  '        if (held == null || held.value.Trim().Length == 0)',
  '        {',
  '            root.SetString(key, value);',
  '        }',
  '    }',
];

const attributionMethod = [
  '',
  `    private static void ${stepCalls.attribution}(string id, PlistElementDict root)`,
  '    {',
  '        var held = root["SKAdNetworkItems"];',
  '        var items = held == null ? root.CreateArray("SKAdNetworkItems") : held.AsArray();',
  '        foreach (var item in items.values)',
  '        {',
  '            var known = item is PlistElementDict ? item.AsDict()["SKAdNetworkIdentifier"] as PlistElementString : null;',
  '            if (known != null && known.value.ToLowerInvariant() == id)',
  '            {',
  '                return;',
  '            }',
  '        }',
  '',
  '        items.AddDict().SetString("SKAdNetworkIdentifier", id);',
  '    }',
];

const entryMethod = [
  '',
  `    private static void ${stepCalls.entry}(PlistElementDict root, string type, string value, params string[] way)`,
  '    {',
  '        var holder = root;',
  '        for (var at = 0; at < way.Length - 1; at++)',
  '        {',
  '            var held = holder[way[at]];',
  '            holder = held == null ? holder.CreateDict(way[at]) : held.AsDict();',
  '        }',
  '',
  '        var key = way[way.Length - 1];',
  '        if (type == "integer")',
  '        {',
  '            holder.SetInteger(key, int.Parse(value, CultureInfo.InvariantCulture));',
  '        }',
  '        else if (type == "real")',
  '        {',
  '            holder.SetReal(key, float.Parse(value, CultureInfo.InvariantCulture));',
  '        }',
  '        else if (type == "boolean")',
  '        {',
  '            holder.SetBoolean(key, value == "true");',
  '        }',
  '        else if (type == "string")',
  '        {',
  '            holder.SetString(key, value);',
  '        }',
  '        else',
  '        {',
  '            var items = holder[key] == null ? holder.CreateArray(key) : holder[key].AsArray();',
  '            foreach (var item in items.values)',
  '            {',
  '                if (item is PlistElementString && item.AsString() == value)',
  '                {',
  '                    return;',
  '                }',
  '            }',
  '',
  '            items.AddString(value);',
  '        }',
  '    }',
];
