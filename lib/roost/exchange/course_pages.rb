# frozen_string_literal: true

module Roost
  module Exchange
    # Pages of courses to which a session or an assignment is posted. One file a destination, in the folder of this name: a
    # class whose #post takes a Post and gives a Core::Reading.
    module CoursePages
      # opens, closes:: as they are said at the school; "" where there is no time
      Post = Struct.new(:title, :link, :class_name, :opens, :closes, keyword_init: true)

      # @param settings [Settings]
      # @return [#post, nil] where this program posts to; nil where nothing is set
      def self.of(settings) = settings.course_page && Simulated.new(settings.course_page)
    end
  end
end
