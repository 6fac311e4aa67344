namespace hinge { void placeholder() {} }
