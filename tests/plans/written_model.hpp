#pragma once

#include <fmt/format.h>

#include <string>
#include <vector>

namespace glow::cases {

/// A small building model as STEP text: what a test adds to two rooms beside each other in millimetres.
class WrittenModel {
 public:
  WrittenModel() {
    const std::string unit = add("IFCSIUNIT(*,.LENGTHUNIT.,.MILLI.,.METRE.)");
    const std::string units = add("IFCUNITASSIGNMENT((" + unit + "))");
    axes_ = add("IFCAXIS2PLACEMENT3D(" + point(0, 0, 0) + ",$,$)");
    context_ = add("IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-5," + axes_ + ",$)");
    add("IFCPROJECT('p',$,'Mill',$,$,$,$,(" + context_ + ")," + units + ")");
    place_ = add("IFCLOCALPLACEMENT($," + axes_ + ")");
    up_ = add("IFCDIRECTION((0.,0.,1.))");
    storey_ = add("IFCBUILDINGSTOREY('storey',$,'Ground',$,$," + place_ + ",$,$,.ELEMENT.,0.)");
  }

  /// Adds a record; its number.
  std::string add(const std::string& record) {
    records_.push_back(record);
    return fmt::format(FMT_STRING("#{}"), records_.size());
  }
  std::string point(double x, double y, double z) {
    return add(fmt::format(FMT_STRING("IFCCARTESIANPOINT(({:.3f},{:.3f},{:.3f}))"), x, y, z));
  }
  /// An upright box: its solid.
  std::string box(double x, double y, double wide, double deep, double high, double z = 0) {
    const std::string at = add("IFCAXIS2PLACEMENT3D(" + point(x + wide / 2, y + deep / 2, z) + ",$,$)");
    const std::string profile =
        add(fmt::format(FMT_STRING("IFCRECTANGLEPROFILEDEF(.AREA.,$,$,{:.3f},{:.3f})"), wide, deep));
    return add(fmt::format(FMT_STRING("IFCEXTRUDEDAREASOLID({},{},{},{:.3f})"), profile, at, up_, high));
  }
  std::string shape(const std::string& solids) {
    const std::string body =
        add("IFCSHAPEREPRESENTATION(" + context_ + ",'Body','SweptSolid',(" + solids + "))");
    return add("IFCPRODUCTDEFINITIONSHAPE($,$,(" + body + "))");
  }
  std::string space(const std::string& id, const std::string& number, const std::string& name,
                    const std::string& solids, const std::string& kind = "INTERNAL") {
    return add(fmt::format(FMT_STRING("IFCSPACE('{}',$,'{}',$,$,{},{},'{}',.ELEMENT.,.{}.,$)"), id, number,
                           place_, shape(solids), name, kind));
  }
  /// A wall with a hole that a window or door (or nothing) fills.
  void opening(const std::string& id, const std::string& wall_solid, const std::string& hole_solid,
               const std::string& filling) {
    const std::string wall = add(fmt::format(FMT_STRING("IFCWALL('w{}',$,'Wall',$,$,{},{},$,.NOTDEFINED.)"),
                                             id, place_, shape(wall_solid)));
    const std::string hole =
        add(fmt::format(FMT_STRING("IFCOPENINGELEMENT('h{}',$,'Hole',$,$,{},{},$,.OPENING.)"), id, place_,
                        shape(hole_solid)));
    add("IFCRELVOIDSELEMENT('v" + id + "',$,$,$," + wall + "," + hole + ")");
    if (filling.empty()) return;
    const std::string leaf = add(fmt::format(FMT_STRING("{}('{}',$,'{} {}',$,$,{},$,$,2100.,900.,$,$,$)"),
                                             filling, id, filling, id, place_));
    add("IFCRELFILLSELEMENT('f" + id + "',$,$,$," + hole + "," + leaf + ")");
  }
  void aggregate(const std::string& whole, const std::string& parts) {
    add("IFCRELAGGREGATES('a" + std::to_string(records_.size()) + "',$,$,$," + whole + ",(" + parts + "))");
  }

  const std::string& place() const { return place_; }
  const std::string& storey() const { return storey_; }
  const std::string& axes() const { return axes_; }
  const std::string& context() const { return context_; }

  std::string bytes(const std::string& schema = "IFC4") const {
    std::string text = "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('" + schema + "'));\nENDSEC;\nDATA;\n";
    for (std::size_t k = 0; k < records_.size(); ++k)
      text += fmt::format(FMT_STRING("#{}={};\n"), k + 1, records_[k]);
    return text + "ENDSEC;\nEND-ISO-10303-21;\n";
  }

 private:
  std::vector<std::string> records_;
  std::string axes_, context_, place_, up_, storey_;
};

}  // namespace glow::cases
