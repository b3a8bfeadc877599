# frozen_string_literal: true

module Roost
  module Web
    # The page a teacher comes to first.
    class Today < TeacherApp
      get("/") { page("today/index", title: "Today", view: Operations::Today.new.call(account_id), school: Store::School.new.settings) }
    end
  end
end
