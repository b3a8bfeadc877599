# frozen_string_literal: true

module Roost
  module Operations
    # Posts a session or an assignment to the page of a course.
    class PostToCourse
      NOWHERE = "No course page is set (ROOST_COURSE_PAGE)."

      # @param page [#post, nil] see Exchange::CoursePages
      def initialize(page = Exchange::CoursePages.of(Roost.settings))
        @page = page
      end

      # @return [Core::Reading, nil] of the address of the page; nil when she has no such session
      def call(account_id, session_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row
        return Core::Reading.refused(NOWHERE) unless @page

        @page.post(Exchange::CoursePages::Post.new(title: row.title, link: Roost.settings.join_link(row.code),
                                                   class_name: row.class_name, **times(row)))
      end

      private

      def times(row)
        return { opens: "", closes: "" } unless row.self_paced

        time = SchoolClock.here
        given = Store::Assignments.new.find(row.id)
        { opens: time.say(given.opens_at), closes: time.say(given.closes_at) }
      end
    end
  end
end
