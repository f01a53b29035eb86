// What Node sees: `walk(plan)`, which gives a promise of what was found, and `abandon()`, which ends all
// walks.
#define NAPI_VERSION 8
#include <node_api.h>

#include <exception>
#include <memory>

#include "walker.h"

namespace {

using syndexa::Found;
using syndexa::Plan;
using syndexa::Rule;

/** A call of Node's interface failed; it says itself why. */
struct NodeError : std::exception {};

/** Reading and making values. */
class Values {
 public:
  explicit Values(napi_env env) : env_(env) {}

  void Check(napi_status status) const {
    if (status != napi_ok) throw NodeError();
  }

  bool Has(napi_value object, const char* name) const {
    napi_valuetype kind;
    Check(napi_typeof(env_, Get(object, name), &kind));
    return kind != napi_undefined;
  }

  napi_value Get(napi_value object, const char* name) const {
    napi_value value;
    Check(napi_get_named_property(env_, object, name, &value));
    return value;
  }

  std::string Text(napi_value value) const {
    size_t length;
    Check(napi_get_value_string_utf8(env_, value, nullptr, 0, &length));
    std::string text(length, '\0');
    Check(napi_get_value_string_utf8(env_, value, text.data(), length + 1, &length));
    return text;
  }

  double Number(napi_value value) const {
    double number;
    Check(napi_get_value_double(env_, value, &number));
    return number;
  }

  bool Truth(napi_value value) const {
    bool truth;
    Check(napi_get_value_bool(env_, value, &truth));
    return truth;
  }

  template <typename Each>
  void ForEach(napi_value list, Each each) const {
    uint32_t length;
    Check(napi_get_array_length(env_, list, &length));
    for (uint32_t at = 0; at < length; at++) {
      napi_value item;
      Check(napi_get_element(env_, list, at, &item));
      each(item);
    }
  }

  napi_value MakeNumber(double number) const {
    napi_value value;
    Check(napi_create_double(env_, number, &value));
    return value;
  }

  napi_value MakeText(const std::string& text) const {
    napi_value value;
    Check(napi_create_string_utf8(env_, text.data(), text.size(), &value));
    return value;
  }

  napi_value MakeBytes(const std::string& bytes) const {
    napi_value value;
    void* copy;
    Check(napi_create_buffer_copy(env_, bytes.size(), bytes.data(), &copy, &value));
    return value;
  }

  napi_value MakeObject(std::initializer_list<std::pair<const char*, napi_value>> fields) const {
    napi_value object;
    Check(napi_create_object(env_, &object));
    for (const auto& [name, value] : fields) Check(napi_set_named_property(env_, object, name, value));
    return object;
  }

  template <typename Items, typename Make>
  napi_value MakeList(const Items& items, Make make) const {
    napi_value list;
    Check(napi_create_array_with_length(env_, items.size(), &list));
    uint32_t at = 0;
    for (const auto& item : items) {
      // A tree may hold very many files: what was made for one is let go of before the next.
      napi_handle_scope scope;
      Check(napi_open_handle_scope(env_, &scope));
      Check(napi_set_element(env_, list, at++, make(item)));
      Check(napi_close_handle_scope(env_, scope));
    }
    return list;
  }

 private:
  napi_env env_;
};

Plan PlanOf(const Values& values, napi_env env, napi_value object) {
  Plan plan;
  const auto get = [&](const char* name) { return values.Get(object, name); };
  plan.base = values.Text(get("base"));
  values.ForEach(get("names"), [&](napi_value name) { plan.names.insert(values.Text(name)); });
  values.ForEach(get("rules"), [&](napi_value each) {
    Rule rule;
    const auto take = [&](const char* name, std::string& text, bool& has) {
      has = values.Has(each, name);
      if (has) text = values.Text(values.Get(each, name));
    };
    take("name", rule.name, rule.has_name);
    take("suffix", rule.suffix, rule.has_suffix);
    take("parent", rule.parent, rule.has_parent);
    rule.needle = values.Has(each, "needle") && values.Truth(values.Get(each, "needle"));
    plan.rules.push_back(std::move(rule));
  });
  values.ForEach(get("needles"), [&](napi_value text) { plan.needles.push_back(values.Text(text)); });
  values.ForEach(get("skipFolders"), [&](napi_value name) { plan.skip_folders.insert(values.Text(name)); });
  values.ForEach(get("skipBeside"), [&](napi_value each) {
    plan.skip_beside[values.Text(values.Get(each, "folder"))].push_back(
        values.Text(values.Get(each, "beside")));
  });
  values.ForEach(get("ends"), [&](napi_value end) { plan.ends.push_back(values.Text(end)); });
  plan.max_file_bytes = static_cast<size_t>(values.Number(get("maxFileBytes")));
  plan.max_depth = static_cast<size_t>(values.Number(get("maxDepth")));
  plan.threads = static_cast<size_t>(values.Number(get("threads")));
  plan.keeps_known = values.Has(object, "known");
  if (plan.keeps_known) {
    void* bytes;
    size_t length;
    values.Check(napi_get_buffer_info(env, get("known"), &bytes, &length));
    plan.known.assign(static_cast<const char*>(bytes), length);
    plan.too_fresh = values.Number(get("tooFresh"));
  }
  return plan;
}

napi_value ResultOf(const Values& values, const Found& found) {
  const char* const reasons[] = {"system", "too-large", "too-deep", "leads-out", "leads-nowhere"};
  const auto files = values.MakeList(found.files, [&](const syndexa::FoundFile& file) {
    const auto& [size, changed, entered, number] = file.times;
    const bool known = !file.known_hash.empty();
    return values.MakeObject({
        {"path", values.MakeText(file.path)},
        {"size", values.MakeNumber(size)},
        {"changed", values.MakeNumber(changed)},
        {"entered", values.MakeNumber(entered)},
        {"number", values.MakeNumber(number)},
        {known ? "hash" : "bytes", values.MakeBytes(known ? file.known_hash : file.bytes)},
    });
  });
  const auto left_out = values.MakeList(found.left_out, [&](const syndexa::LeftOut& each) {
    return values.MakeObject({
        {"path", values.MakeText(each.path)},
        {"reason", values.MakeText(reasons[static_cast<size_t>(each.reason)])},
        {"detail", values.MakeNumber(each.detail)},
    });
  });
  return values.MakeObject({
      {"files", files},
      {"folders",
       values.MakeList(found.folders, [&](const std::string& path) { return values.MakeText(path); })},
      {"leftOut", left_out},
      {"seen", values.MakeNumber(static_cast<double>(found.seen))},
      {"read", values.MakeNumber(static_cast<double>(found.read))},
      {"dull", values.MakeBytes(found.dull)},
  });
}

/** One walk: begun on Node's thread, done on others, and told on Node's again. */
struct Job {
  Plan plan;
  Found found;
  std::string failure;
  napi_deferred deferred = nullptr;
  napi_async_work work = nullptr;
};

void Execute(napi_env, void* data) {
  auto* job = static_cast<Job*>(data);
  try {
    syndexa::Walker walker(job->plan);
    job->found = walker.Run();
    if (walker.IsAbandoned()) job->failure = "The walk was abandoned.";
  } catch (const std::exception& error) {
    job->failure = error.what();
  }
}

void Reject(napi_env env, napi_deferred deferred, const std::string& why) {
  napi_value message, error;
  if (napi_create_string_utf8(env, why.data(), why.size(), &message) == napi_ok &&
      napi_create_error(env, nullptr, message, &error) == napi_ok)
    napi_reject_deferred(env, deferred, error);
}

void Complete(napi_env env, napi_status, void* data) {
  const std::unique_ptr<Job> job(static_cast<Job*>(data));
  napi_delete_async_work(env, job->work);
  if (!job->failure.empty()) return Reject(env, job->deferred, job->failure);
  try {
    const Values values(env);
    values.Check(napi_resolve_deferred(env, job->deferred, ResultOf(values, job->found)));
  } catch (const NodeError&) {
    Reject(env, job->deferred, "What was found is too much to be told.");
  }
}

napi_value Walk(napi_env env, napi_callback_info info) {
  const Values values(env);
  auto job = std::make_unique<Job>();
  try {
    size_t count = 1;
    napi_value plan, promise, name = values.MakeText("syndexa walk");
    values.Check(napi_get_cb_info(env, info, &count, &plan, nullptr, nullptr));
    job->plan = PlanOf(values, env, plan);
    job->plan.abandoned_before = syndexa::Walker::abandoned();
    values.Check(napi_create_promise(env, &job->deferred, &promise));
    values.Check(napi_create_async_work(env, nullptr, name, Execute, Complete, job.get(), &job->work));
    values.Check(napi_queue_async_work(env, job->work));
    job.release();
    return promise;
  } catch (const NodeError&) {
    napi_throw_type_error(env, nullptr, "The plan is not one.");
    return nullptr;
  }
}

napi_value Abandon(napi_env, napi_callback_info) {
  syndexa::Walker::AbandonAll();
  return nullptr;
}

}  // namespace

NAPI_MODULE_INIT() {
  napi_value walk, abandon;
  if (napi_create_function(env, "abandon", NAPI_AUTO_LENGTH, Abandon, nullptr, &abandon) == napi_ok)
    napi_set_named_property(env, exports, "abandon", abandon);
  if (napi_create_function(env, "walk", NAPI_AUTO_LENGTH, Walk, nullptr, &walk) == napi_ok)
    napi_set_named_property(env, exports, "walk", walk);
  return exports;
}
