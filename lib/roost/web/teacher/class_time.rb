# frozen_string_literal: true

module Roost
  module Web
    # A class over a term: attendance, shares week by week, what was gained and lost, and what the class thought of its lessons.
    class ClassTime < TeacherApp
      helpers ClassCharts

      get "/:id/over-time" do
        klass = Store::Classes.new.find(account_id, number("id")) || not_found
        overview = Operations::ClassOverTime.new.call(account_id, klass.id)
        page("classes/over_time", title: "Over time", klass: klass, overview: overview,
                                  students: Store::Students.new.of_class(klass.id))
      end
    end
  end
end
